// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.DurationText;
import dev.cachette.match.RequestPattern;
import dev.cachette.sweep.result.SweptRun;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import java.util.function.IntSupplier;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Runs a scenario: once to learn its calls, then with each fault. Each run is in a scope of its
 * own, so stubs and clock begin again.
 *
 * @param <T> the result of the scenario
 */
public final class Sweeper<T> {

  /** How long the scenario may take without a fault: classes are loaded, and compiled. */
  private static final Duration LEARNING = Duration.ofMinutes(1);

  private final Cachette net;
  private final Callable<T> code;
  private final Optional<Consumer<T>> check;
  private final SweepSettings settings;
  private List<ScenarioCall> scenario = List.of();
  private CallKinds kinds = CallKinds.of(List.of(), List.of());
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
    this.check = check;
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
      SweptRun swept = endingConnectionsTo(unreachableNext, () -> Sweeper.this.run(variant));
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
    scenario = inTwoRuns();
    List<Variant> variants =
        scenario.stream()
            .filter(this::isChosen)
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
              scenario.stream()
                  .map(it -> "  " + it.number() + " " + it.kind())
                  .collect(Collectors.joining("\n"))));
    }
    return runs;
  }

  /**
   * Makes a run after which clients have no connections over HTTP/1.1 to some services. A service
   * may be unreachable in the next run, and some clients would notice the end of a connection only
   * after they have sent a request.
   */
  private <R> R endingConnectionsTo(Set<String> origins, Supplier<R> run) {
    CachetteInternals.keepNoConnections(net, origins);
    try {
      return run.get();
    } finally {
      CachetteInternals.keepNoConnections(net, Set.of());
    }
  }

  /** Returns what is not tried of the calls, in words. */
  public List<String> omitted() {
    return scenario.stream()
        .filter(this::isChosen)
        .flatMap(call -> Variants.omitted(call, settings).stream())
        .toList();
  }

  private boolean isChosen(ScenarioCall call) {
    return settings.calls().isEmpty()
        || settings.calls().stream().anyMatch(it -> it.match(call.request()).isPresent());
  }

  /** The second run shows which calls are made each time, and what differs in their paths. */
  private List<ScenarioCall> inTwoRuns() {
    List<Request> first = withoutFault("without a fault").stream().map(Call::request).toList();
    Set<String> origins = first.stream().map(it -> it.uri().origin()).collect(Collectors.toSet());
    List<Call> second = endingConnectionsTo(origins, () -> withoutFault("without a fault, again"));
    kinds = CallKinds.of(first, second.stream().map(Call::request).toList());
    List<String> notEachTime =
        kinds.onlyOnce().stream()
            .filter(
                one -> settings.mayLeaveOut().stream().noneMatch(it -> it.match(one).isPresent()))
            .map(one -> Masking.url(CallKinds.literal(one)))
            .distinct()
            .toList();
    if (!notEachTime.isEmpty()) {
      throw Refusals.state(
          String.format(
              "%s: only one of two runs without a fault made the call %s, so it cannot be swept."
                  + " Fix: create what caches its response within the scenario; or, if it needs no"
                  + " faults, mayLeaveOut(\"%s\").",
              settings.name(), String.join(", and ", notEachTime), notEachTime.get(0)));
    }
    return ScenarioCall.of(second, kinds);
  }

  private List<Call> withoutFault(String run) {
    List<Call> calls;
    try (Cachette.Scope scope = CachetteInternals.scope(net, settings.name() + ", " + run)) {
      Scenario running = Scenario.start(code);
      if (!running.await(LEARNING.toMillis())) {
        String place = running.place();
        running.interrupt();
        throw doesNotPass(
            "it does not end within " + DurationText.of(LEARNING) + "." + place, null);
      }
      running
          .thrown()
          .ifPresent(
              thrown -> {
                throw doesNotPass("it threw " + thrown, thrown);
              });
      wrong(running.result())
          .ifPresent(
              wrong -> {
                throw doesNotPass("its result is wrong: " + wrong.getMessage(), wrong);
              });
      broken()
          .forEach(
              (name, why) -> {
                throw doesNotPass(
                    "the invariant \"" + name + "\" does not hold: " + why.getMessage(), why);
              });
      calls = net.calls().stream().toList();
    }
    if (calls.isEmpty()) {
      throw Refusals.state(
          settings.name() + ": the scenario makes no call, so no fault can occur.");
    }
    return calls;
  }

  private IllegalStateException doesNotPass(String why, @Nullable Throwable cause) {
    return new IllegalStateException(
        settings.name() + ": the scenario does not pass without a fault: " + why, cause);
  }

  @SuppressWarnings("unchecked")
  private Optional<Throwable> wrong(@Nullable Object result) {
    try {
      check.ifPresent(it -> it.accept((T) result));
      return Optional.empty();
    } catch (AssertionError | RuntimeException wrong) {
      return Optional.of(wrong);
    }
  }

  private Map<String, Throwable> broken() {
    Map<String, Throwable> broken = new LinkedHashMap<>();
    settings
        .invariants()
        .forEach(
            (name, invariant) -> {
              try {
                invariant.run();
              } catch (AssertionError | RuntimeException failure) {
                broken.put(name, failure);
              }
            });
    return broken;
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
    Optional<Throwable> wrong = returned ? wrong(running.result()) : Optional.empty();
    Map<String, Throwable> broken = isHung ? Map.of() : broken();
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
            check.isPresent(),
            calls,
            kinds,
            variant.fault().isBeforeRequest() ? given : 0,
            broken,
            isHung ? Optional.empty() : unexpected);
    return Judgement.of(
        settings, scenario, variant, observed, Duration.ofNanos(System.nanoTime() - begin));
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
                .satisfies("a call like " + call.kind(), it -> kinds.of(it).equals(call.kind()));
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
