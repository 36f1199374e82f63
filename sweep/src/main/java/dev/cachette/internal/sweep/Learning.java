// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.DurationText;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Runs a scenario without a fault, to learn its calls. */
final class Learning {

  /** How long the scenario may take without a fault: classes are loaded, and compiled. */
  private static final Duration PATIENCE = Duration.ofMinutes(1);

  private final Cachette net;
  private final Callable<?> code;
  private final Checks<?> checks;
  private final SweepSettings settings;

  Learning(Cachette net, Callable<?> code, Checks<?> checks, SweepSettings settings) {
    this.net = net;
    this.code = code;
    this.checks = checks;
    this.settings = settings;
  }

  /**
   * Runs it twice: the second run shows which calls are made each time, and what differs in their
   * paths.
   *
   * @throws IllegalStateException if it does not pass, makes no call, or not the same calls
   */
  Learned inTwoRuns() {
    List<Request> first = withoutFault("without a fault").stream().map(Call::request).toList();
    Set<String> origins = first.stream().map(it -> it.uri().origin()).collect(Collectors.toSet());
    List<Call> second =
        UnkeptConnections.during(net, origins, () -> withoutFault("without a fault, again"));
    CallKinds kinds = CallKinds.of(first, second.stream().map(Call::request).toList());
    List<String> notEachTime =
        kinds.onlyOnce().stream()
            .filter(one -> !settings.allowsLeavingOut(one))
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
    return new Learned(ScenarioCall.of(second, kinds), kinds);
  }

  private List<Call> withoutFault(String run) {
    List<Call> calls;
    try (Cachette.Scope scope = CachetteInternals.scope(net, settings.name() + ", " + run)) {
      Scenario running = Scenario.start(code);
      if (!running.await(PATIENCE.toMillis())) {
        String place = running.place();
        running.interrupt();
        throw doesNotPass(
            "it does not end within " + DurationText.of(PATIENCE) + "." + place, null);
      }
      running
          .thrown()
          .ifPresent(
              thrown -> {
                throw doesNotPass("it threw " + thrown, thrown);
              });
      checks
          .wrong(running.result())
          .ifPresent(
              wrong -> {
                throw doesNotPass("its result is wrong: " + wrong.getMessage(), wrong);
              });
      checks
          .broken()
          .forEach(
              (name, why) -> {
                throw doesNotPass(
                    "the invariant \"" + name + "\" does not hold: " + why.getMessage(), why);
              });
      calls = net.calls().stream().toList();
    }
    calls.stream()
        .filter(call -> call.state().compareTo(Call.State.SENDING) < 0)
        .findFirst()
        .ifPresent(
            call -> {
              throw doesNotPass(
                  "it ends before its call "
                      + Masking.url(CallKinds.literal(call.request()))
                      + " has a response. Fix: wait for it within the scenario.",
                  null);
            });
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
}
