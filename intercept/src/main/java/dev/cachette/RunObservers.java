// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.calls.Call;
import dev.cachette.internal.engine.EndedScope;
import dev.cachette.internal.engine.Onlooker;
import dev.cachette.internal.engine.ScopeReport;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.openapi.Described;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;
import org.slf4j.LoggerFactory;

/** The observers of one session: the live page and the run report of this JVM, if it wants them. */
final class RunObservers implements Onlooker {

  /** Those of this JVM, from the first session that wants one; empty if one could not be opened. */
  private static final Map<Class<?>, Optional<RunObserver>> OF_RUN = new HashMap<>();

  private final List<RunObserver> all = new CopyOnWriteArrayList<>();
  private final boolean onUnexpected;
  private final boolean onUnused;

  private RunObservers(Settings settings) {
    this.onUnexpected = settings.unexpectedCalls() == UnexpectedCalls.FAIL;
    this.onUnused = settings.unusedStubs() == UnusedStubs.FAIL;
  }

  /**
   * Opens those that a session wants, unless they are open.
   *
   * @throws IllegalStateException if one is not on the classpath
   */
  static RunObservers of(Settings settings) {
    RunObservers observers = new RunObservers(settings);
    settings
        .livePage()
        .ifPresent(
            port ->
                observers.add(
                    RunPage.class,
                    "live page",
                    "control",
                    page -> "The live page is at " + page.open(port)));
    settings
        .report()
        .ifPresent(
            folder ->
                observers.add(
                    RunReport.class,
                    "run report",
                    "report",
                    report -> "The run report will be at " + report.open(folder)));
    return observers;
  }

  private <T extends RunObserver> void add(
      Class<T> service, String what, String module, Function<T, String> opening) {
    synchronized (OF_RUN) {
      if (!OF_RUN.containsKey(service)) {
        T found =
            ServiceLoader.load(service, RunObservers.class.getClassLoader())
                .findFirst()
                .orElseThrow(
                    () ->
                        new IllegalStateException(
                            String.format(
                                "The %s needs dev.cachette:cachette-%s. Fix: add it to the test"
                                    + " classpath, or do not ask for a %s.",
                                what, module, what)));
        OF_RUN.put(service, opened(found, what, opening));
      }
      OF_RUN.get(service).ifPresent(all::add);
    }
  }

  private static <T extends RunObserver> Optional<RunObserver> opened(
      T observer, String what, Function<T, String> opening) {
    try {
      LoggerFactory.getLogger(Cachette.class).info(opening.apply(observer));
      return Optional.of(observer);
    } catch (IllegalStateException impossible) {
      // Another JVM of the same build may have the port; tests must not fail for that.
      Messages.warn("There is no " + what + ": " + impossible.getMessage());
      return Optional.empty();
    }
  }

  /** Adds one of this session alone. */
  void add(RunObserver observer) {
    all.add(observer);
  }

  void opened(Cachette net) {
    all.forEach(it -> it.opened(net));
  }

  void closing(Cachette net) {
    all.forEach(it -> it.closing(net));
  }

  /**
   * Tells all of them that the session has ended.
   *
   * @param failure why it fails; null if it does not
   */
  void closed(Cachette net, @Nullable Throwable failure) {
    @Nullable Throwable first = failure;
    for (RunObserver each : all) {
      try {
        each.closed(net);
      } catch (RuntimeException | AssertionError also) {
        if (first == null) {
          first = also;
        } else {
          first.addSuppressed(also);
        }
      }
    }
    if (first instanceof Error error) {
      throw error;
    }
    if (first != null) {
      throw (RuntimeException) first;
    }
  }

  void swept(Map<String, Object> run) {
    all.forEach(it -> it.swept(run));
  }

  @Override
  public void begun(TestId test) {
    for (RunObserver each : all) {
      each.begun(test);
    }
  }

  @Override
  public void arrived(Call call, TestId test, Optional<Described> service) {
    for (RunObserver each : all) {
      each.arrived(call, test, service);
    }
  }

  @Override
  public void delivered(Call call, TestId test) {
    for (RunObserver each : all) {
      each.answered(call, test);
    }
  }

  @Override
  public void ended(Supplier<EndedScope> scope) {
    if (!all.isEmpty()) {
      EndedScope ended = scope.get();
      Optional<String> failure = ended.failure().or(() -> failure(ended.report()));
      all.forEach(it -> it.ended(ended, failure));
    }
  }

  private Optional<String> failure(ScopeReport report) {
    try {
      report.raise(onUnexpected, onUnused);
      return Optional.empty();
    } catch (AssertionFailedError | RuntimeException failed) {
      return Optional.of(String.valueOf(failed.getMessage()));
    }
  }
}
