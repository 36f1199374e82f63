// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import dev.cachette.RunReport;
import dev.cachette.calls.Call;
import dev.cachette.internal.engine.EndedScope;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.openapi.Described;
import dev.cachette.result.StubStatus;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.LoggerFactory;

/** The report of a test run: writes what happens, and the report when the JVM ends. Thread-safe. */
public final class TestRunReport implements RunReport {

  private @Nullable Journal journal;

  /** Used by the journal's thread only, like the next two. */
  private final CallLines calls = new CallLines();

  /** The API descriptions that were written. */
  private final Set<List<Object>> descriptions = new HashSet<>();

  /** The numbers of the stubs that were written. */
  private final Map<List<Object>, Integer> stubs = new HashMap<>();

  /** The calls that are not answered yet; of some, that will never be, only the log knows. */
  private final Map<Call, Arrived> underWay = Collections.synchronizedMap(new WeakHashMap<>());

  /** When a call arrived, in real time, and the service with an API description that it is for. */
  private record Arrived(Instant at, Optional<Described> service) {}

  @Override
  public Path open(Path folder) {
    RunFolder report = new RunFolder(folder.toAbsolutePath().normalize());
    Instant started = Instant.now();
    try {
      String run = RunName.ofThisJvm(report.parts());
      Path part = report.partOfThisJvm(run);
      report.removeOtherRuns(run);
      journal = new Journal(part);
      Runtime.getRuntime()
          .addShutdownHook(new Thread(() -> finish(report, run, part), "cachette-report-end"));
    } catch (IOException unwritable) {
      throw new IllegalStateException(folder + " cannot be written: " + unwritable, unwritable);
    }
    write(() -> Events.jvm(started));
    return report.html();
  }

  private void write(Supplier<Line> event) {
    Journal open = journal;
    if (open != null) {
      open.write(event);
    }
  }

  private void finish(RunFolder folder, String run, Path part) {
    write(() -> Events.over(Instant.now()));
    try {
      Map<Path, JvmEvents> known = new HashMap<>();
      Journal open = journal;
      if (open != null) {
        open.close();
        open.written().ifPresent(events -> known.put(part, events));
      }
      Reports.writeAlone(folder, run, known);
    } catch (IOException | RuntimeException failed) {
      LoggerFactory.getLogger(TestRunReport.class)
          .warn("The run report {} cannot be written: {}", folder.html(), failed.toString());
    }
  }

  @Override
  public void swept(Map<String, Object> run) {
    Instant now = Instant.now();
    write(() -> Events.swept(run, now));
  }

  @Override
  public void begun(TestId test) {
    Instant now = Instant.now();
    if (test.number() != 0) {
      write(() -> Events.begun(test, now));
    }
  }

  @Override
  public void arrived(Call call, TestId test, Optional<Described> service) {
    Instant at = Instant.now().minus(call.times().matched().orElse(Duration.ZERO));
    service.ifPresent(this::describe);
    underWay.put(call, new Arrived(at, service));
  }

  @Override
  public void answered(Call call, TestId test) {
    Arrived arrived = underWay.remove(call);
    if (arrived != null) {
      write(() -> calls.of(call, test, arrived.at, arrived.service));
    }
  }

  private void describe(Described service) {
    Instant now = Instant.now();
    write(
        () ->
            descriptions.add(List.of(service.origin(), service.description().name()))
                ? Events.description(service, now)
                : Line.NONE);
  }

  @Override
  public void ended(EndedScope scope, Optional<String> failure) {
    Instant now = Instant.now();
    scope.described().forEach(this::describe);
    for (Call call : scope.log().calls()) {
      Arrived arrived = underWay.get(call);
      if (arrived != null) {
        // It is written again when it is answered.
        write(() -> calls.of(call, scope.test(), arrived.at, arrived.service));
      }
    }
    scope.stubs().forEach(stub -> write(() -> firstTime(stub, now)));
    ScopeEnd end = ScopeEnd.of(scope, failure, now);
    write(() -> end.event(stubs));
  }

  private Line firstTime(StubStatus stub, Instant now) {
    int next = stubs.size();
    int id = stubs.computeIfAbsent(ScopeEnd.key(stub), key -> next);
    return id == next ? Events.stub(id, stub, now) : Line.NONE;
  }
}
