// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.explain.Obstacle;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.AnswerUse;
import dev.cachette.result.StubReference;
import dev.cachette.result.StubStatus;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Describes what happens in a run as JSON objects for the {@link Journal}; masks secrets. */
final class Events {

  /** The format of the files; a reader refuses another one. */
  static final int FORMAT = 1;

  private static final double NANOS_OF_MILLI = 1e6;

  private Events() {}

  /** Returns microseconds since the epoch, which are read faster than a date. */
  static long micros(Instant at) {
    return ChronoUnit.MICROS.between(Instant.EPOCH, at);
  }

  static Map<String, Object> event(String name) {
    Map<String, Object> event = new LinkedHashMap<>();
    event.put("event", name);
    return event;
  }

  static Line jvm(Instant started) {
    Map<String, Object> event = event("jvm");
    event.put("format", FORMAT);
    event.put("process", ProcessHandle.current().pid());
    event.put("at", micros(started));
    event.put("java", Runtime.version().toString());
    event.put("folder", System.getProperty("user.dir"));
    return Line.of(event);
  }

  static Line over(Instant at) {
    Map<String, Object> event = event("over");
    event.put("at", micros(at));
    return Line.of(event);
  }

  static Line begun(TestId test, Instant at) {
    Map<String, Object> event = event("begun");
    event.put("test", test.number());
    event.put("name", test.name());
    event.put("at", micros(at));
    return Line.of(event);
  }

  /** A run of a fault sweep. */
  static Line swept(Map<String, Object> run, Instant at) {
    Map<String, Object> event = event("swept");
    event.put("at", micros(at));
    event.putAll(run);
    return Line.of(event);
  }

  /** An API description, which is said once. */
  static Line description(Described service, Instant at) {
    Description description = service.description();
    Map<String, Object> event = event("description");
    event.put("at", micros(at));
    event.put("origin", service.origin());
    event.put("name", description.name());
    List<Map<String, Object>> operations = new ArrayList<>();
    description
        .documented()
        .forEach(
            (operation, statuses) -> {
              Map<String, Object> json = reference(operation);
              json.put("statuses", statuses);
              operations.add(json);
            });
    event.put("operations", operations);
    return Line.of(event);
  }

  /** A stub with its answers, which is said once. */
  static Line stub(int id, StubStatus stub, Instant at) {
    Map<String, Object> event = event("stub");
    event.put("at", micros(at));
    event.put("id", id);
    event.putAll(reference(stub.stub()));
    event.put("request", Masking.url(stub.request()));
    event.put("answers", stub.uses().stream().map(Events::answer).toList());
    return Line.of(event);
  }

  private static String answer(AnswerUse use) {
    return Masking.text(use.answer()).replaceFirst(" 0 bytes$", "");
  }

  /** Returns the use of a stub in one scope. */
  static Map<String, Object> use(int id, StubStatus stub) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("id", id);
    json.put("given", stub.uses().stream().map(AnswerUse::calls).toList());
    json.put("unused", stub.isUnused());
    stub.coveredBy().ifPresent(it -> json.put("coveredBy", Masking.text(it.toString())));
    if (stub.beaten() > 0) {
      json.put("beaten", stub.beaten());
      stub.beatenBy().ifPresent(it -> json.put("beatenBy", Masking.text(it.toString())));
    }
    json.put(
        "usedUp",
        stub.obstacles().stream().anyMatch(it -> it.condition().equals(Obstacle.USED_UP)));
    return json;
  }

  static Map<String, Object> cassette(LoadedCassette cassette, Instant now) {
    Map<String, Object> json = new LinkedHashMap<>();
    LoadedCassette.Use use = cassette.use();
    json.put("name", cassette.name());
    json.put("mode", cassette.mode().toString());
    json.put("exchanges", cassette.known().size());
    json.put("replayed", use.replayed());
    json.put("calls", use.calls());
    json.put("realMillis", use.realTime().toNanos() / NANOS_OF_MILLI);
    json.put("recorded", use.recorded());
    Optional<Instant> recorded =
        cassette.known().isEmpty() ? Optional.empty() : cassette.before().recordedAt();
    recorded.ifPresent(at -> json.put("recordedAt", at.toString()));
    Optional<Duration> fresh = cassette.settings().staleAfter();
    json.put(
        "stale",
        recorded.isPresent()
            && fresh.isPresent()
            && recorded.get().plus(fresh.get()).isBefore(now));
    return json;
  }

  private static Map<String, Object> reference(StubReference reference) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("name", Masking.text(reference.name()));
    json.put("place", reference.place());
    return json;
  }
}
