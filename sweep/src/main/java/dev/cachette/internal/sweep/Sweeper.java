// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.calls.Call;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.match.RequestPattern;
import dev.cachette.sweep.result.SweptRun;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import java.util.function.IntSupplier;
import java.util.stream.Collectors;

/**
 * Runs a scenario: twice to learn its calls, then with each fault. Each run is in a scope of its
 * own, so stubs and clock begin again.
 *
 * @param <T> the result of the scenario
 */
public final class Sweeper<T> {

  private final Cachette net;
  private final Callable<T> code;
  private final Checks<T> checks;
  private final SweepSettings settings;
  private Learned scenario = Learned.NOTHING;
  private boolean isStuck;

  /**
   * Creates it.
   *
   * @param check throws if a result is wrong
   */
  public Sweeper(
      Cachette net, Callable<T> code, Optional<Consumer<T>> check, SweepSettings settings) {
    this.net = net;
    this.code = code;
    this.checks = new Checks<>(check, settings.invariants());
    this.settings = settings;
  }

  /** A run that is to be made. */
  public final class Planned {

    private final Variant variant;
    private final Optional<Variant> next;

    private Planned(Variant variant, Optional<Variant> next) {
      this.variant = variant;
      this.next = next;
    }

    /** Returns the call, as a heading. */
    public String call() {
      return variant.call().number() + " " + variant.call().kind();
    }

    /** Returns the fault in words. */
    public String fault() {
      return variant.fault() + (variant.detail().isEmpty() ? "" : " " + variant.detail());
    }

    /** Makes the run. */
    public SweptRun run() {
      Set<String> unreachableNext =
          next.filter(it -> it.fault().isBeforeRequest())
              .map(it -> Set.of(it.call().request().uri().origin()))
              .orElse(Set.of());
      SweptRun swept =
          UnkeptConnections.during(net, unreachableNext, () -> Sweeper.this.run(variant));
      CachetteInternals.swept(net, SweptRunReport.of(settings.name(), swept));
      return swept;
    }
  }

  /**
   * Learns the calls of the scenario; returns the runs to be made.
   *
   * @throws IllegalStateException if it does not pass without a fault, or makes no call
   */
  public List<Planned> learn() {
    scenario = new Learning(net, code, checks, settings).inTwoRuns();
    List<Variant> variants =
        scenario.calls().stream()
            .filter(call -> settings.tries(call.request()))
            .flatMap(call -> Variants.of(call, settings).stream())
            .filter(it -> settings.only().isEmpty() || settings.only().get().equals(it.id()))
            .toList();
    List<Planned> runs = new ArrayList<>();
    for (int at = 0; at < variants.size(); at++) {
      boolean isLast = at == variants.size() - 1;
      runs.add(
          new Planned(
              variants.get(at), isLast ? Optional.empty() : Optional.of(variants.get(at + 1))));
    }
    if (runs.isEmpty()) {
      throw Refusals.state(
          String.format(
              "%s: no run is left%s. The calls of the scenario are:\n%s",
              settings.name(),
              settings.only().map(it -> ", since there is no \"" + it + "\"").orElse(""),
              scenario.calls().stream()
                  .map(it -> "  " + it.number() + " " + it.kind())
                  .collect(Collectors.joining("\n"))));
    }
    return runs;
  }

  /** Returns what is not tried of the calls, in words. */
  public List<String> omitted() {
    return scenario.calls().stream()
        .filter(call -> settings.tries(call.request()))
        .flatMap(call -> Variants.omitted(call, settings).stream())
        .toList();
  }

  private SweptRun run(Variant variant) {
    if (isStuck) {
      return Judgement.notRun(variant);
    }
    long begin = System.nanoTime();
    Cachette.Scope scope = CachetteInternals.scope(net, settings.name() + ", " + variant.id());
    boolean isHung = false;
    Scenario running;
    Injected injected;
    try {
      injected = inject(variant);
      running = Scenario.start(code);
      isHung = !await(running, variant, injected);
    } catch (RuntimeException failed) {
      scope.close();
      throw failed;
    }
    // The thread goes on until its calls are ended.
    Optional<Throwable> thrown = isHung ? Optional.empty() : running.thrown();
    boolean returned = !isHung && thrown.isEmpty();
    Optional<Throwable> wrong = returned ? checks.wrong(running.result()) : Optional.empty();
    Map<String, Throwable> broken = isHung ? Map.of() : checks.broken();
    List<Call> calls = new ArrayList<>(net.calls().stream().toList());
    int given = injected.times();
    Optional<AssertionError> unexpected = CachetteInternals.end(scope);
    if (isHung) {
      isStuck = !running.interrupt();
    }
    Observed observed =
        new Observed(
            given > 0,
            isHung,
            thrown,
            wrong,
            checks.ofResult().isPresent(),
            calls,
            scenario.kinds(),
            variant.fault().isBeforeRequest() ? given : 0,
            broken,
            isHung ? Optional.empty() : unexpected);
    return Judgement.of(
        settings, scenario.calls(), variant, observed, Duration.ofNanos(System.nanoTime() - begin));
  }

  /**
   * A fault that waits for its call.
   *
   * @param counted the calls that it has counted so far
   * @param number the number of its call
   */
  private record Injected(IntSupplier counted, int number) {

    /** Returns how often it was given. */
    int times() {
      return Math.max(0, counted.getAsInt() - number + 1);
    }
  }

  private Injected inject(Variant variant) {
    ScenarioCall call = variant.call();
    boolean early = variant.fault().isBeforeRequest();
    String origin = call.request().uri().origin();
    RequestPattern pattern =
        early
            ? RequestPattern.of("* " + origin + "/{+any}")
            : RequestPattern.of(call.request().method() + " " + origin + "/{+any}")
                .satisfies(
                    "a call like " + call.kind(),
                    it -> scenario.kinds().of(it).equals(call.kind()));
    int number = early ? call.ofOrigin() : call.occurrence();
    return new Injected(
        CachetteInternals.inject(net, pattern, number, variant.answer(), settings.lasting()),
        number);
  }

  /** Waits for the end of a run; returns false if it does not come in time. */
  private boolean await(Scenario running, Variant variant, Injected injected) {
    long end = System.nanoTime() + settings.within().toNanos();
    RunClock clock = new RunClock(net.clock(), variant.fault(), settings.slow());
    try {
      while (!running.await(Math.min(clock.pauseMillis(), (end - System.nanoTime()) / 1_000_000))) {
        if (System.nanoTime() >= end) {
          return false;
        }
        clock.look(injected.times());
      }
      return true;
    } finally {
      clock.restore();
    }
  }
}
