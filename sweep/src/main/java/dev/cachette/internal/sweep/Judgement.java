// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.calls.Call;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.DurationText;
import dev.cachette.sweep.result.SweptRun;
import dev.cachette.sweep.result.SweptRun.Outcome;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Judges a run: what the code did, and what of it is not allowed. */
final class Judgement {

  private static final String KEY_HEADER = "idempotency-key";

  private final SweepSettings settings;
  private final List<ScenarioCall> scenario;
  private final Variant variant;
  private final Observed observed;
  private final List<String> findings = new ArrayList<>();

  private Judgement(
      SweepSettings settings, List<ScenarioCall> scenario, Variant variant, Observed observed) {
    this.settings = settings;
    this.scenario = scenario;
    this.variant = variant;
    this.observed = observed;
  }

  /**
   * Judges a run.
   *
   * @param scenario the calls without a fault
   */
  static SweptRun of(
      SweepSettings settings,
      List<ScenarioCall> scenario,
      Variant variant,
      Observed observed,
      Duration duration) {
    Judgement judgement = new Judgement(settings, scenario, variant, observed);
    judgement.judge();
    return new SweptRun(
        variant.id(),
        variant.call().number(),
        Masking.url(variant.call().kind()),
        variant.fault(),
        variant.detail(),
        judgement.outcome(),
        judgement.repeats(),
        observed.thrown(),
        judgement.findings.stream().map(Masking::text).toList(),
        observed.calls().stream().map(Judgement::line).toList(),
        duration);
  }

  /** Returns a run that is not made, since an earlier one goes on. */
  static SweptRun notRun(Variant variant) {
    return new SweptRun(
        variant.id(),
        variant.call().number(),
        Masking.url(variant.call().kind()),
        variant.fault(),
        variant.detail(),
        Outcome.NOT_RUN,
        0,
        Optional.empty(),
        List.of(
            "It was not run: an earlier run goes on though it was interrupted, so its calls would"
                + " disturb this one.\nFix: see the run that hung."),
        List.of(),
        Duration.ZERO);
  }

  private static String line(Call call) {
    return Masking.url(CallKinds.literal(call.request())) + "  ->  " + call.outcome();
  }

  /** Returns how often the call was made again. */
  private int repeats() {
    String kind = variant.call().kind();
    return Math.max(0, observed.count(kind, true) - timesInScenario(kind));
  }

  private int timesInScenario(String kind) {
    return (int) scenario.stream().filter(it -> it.kind().equals(kind)).count();
  }

  private Outcome outcome() {
    if (observed.isHung()) {
      return Outcome.HUNG;
    }
    if (!findings.isEmpty()) {
      return Outcome.FAILED;
    }
    if (!observed.isMet()) {
      return Outcome.NOT_MET;
    }
    return observed.thrown().isPresent() ? Outcome.FAILED_AS_ALLOWED : Outcome.RECOVERED;
  }

  private void judge() {
    if (observed.isHung()) {
      findings.add(
          "It did not end within "
              + DurationText.of(settings.within())
              + ". Fix: set a timeout for this call; or, if it has a longer one, within(...).");
    } else {
      observed.thrown().ifPresentOrElse(this::judgeThrown, this::judgeReturned);
      judgeNotMet();
    }
    judgeRepeats();
    observed
        .broken()
        .forEach(
            (name, why) ->
                findings.add(
                    "The invariant \""
                        + name
                        + "\" does not hold: "
                        + firstLines(why.getMessage())));
    observed
        .unexpected()
        .ifPresent(it -> findings.add("It did something else: " + firstLines(it.getMessage())));
  }

  private static String firstLines(String text) {
    return String.valueOf(text)
        .lines()
        .filter(line -> !line.isBlank())
        .limit(3)
        .collect(Collectors.joining("\n"));
  }

  private void judgeThrown(Throwable thrown) {
    Optional<Class<? extends Throwable>> allowed =
        settings.allowed().stream().filter(it -> it.isInstance(thrown)).findFirst();
    boolean leaks = RawExceptions.isOne(thrown);
    if (allowed.isPresent() && (!leaks || settings.allowed().contains(thrown.getClass()))) {
      return;
    }
    String what = thrown.getClass().getName() + ": " + firstLines(thrown.getMessage());
    findings.add(
        leaks
            ? "It leaks a raw exception, "
                + what
                + "\nFix: check the response, and throw an exception that says which service sent"
                + " what."
            : "It threw "
                + what
                + "\nFix: handle the fault; or, if callers handle this, allow("
                + thrown.getClass().getSimpleName()
                + ".class).");
  }

  /** Calls that share a connection may need none of their own. */
  private void judgeNotMet() {
    if (!observed.isMet()
        && !variant.fault().isBeforeRequest()
        && !settings.allowsLeavingOut(variant.call().request())) {
      findings.add(
          "The fault did not occur: this run did not make the call.\n"
              + "Fix: let the scenario make the same calls each time, and create what caches"
              + " responses within it; or mayLeaveOut(\""
              + variant.call().kind()
              + "\").");
    }
  }

  private void judgeReturned() {
    if (observed.wrongResult().isPresent()) {
      findings.add(
          "It returned a wrong result: "
              + firstLines(observed.wrongResult().get().getMessage())
              + "\nFix: call again, or throw an exception.");
      return;
    }
    if (!observed.isMet()) {
      return;
    }
    if (repeats() == 0 && variant.fault().losesResponse() && !observed.isResultChecked()) {
      findings.add(
          "It swallows the fault: it returned without calling again.\nFix: throw an exception; or,"
              + " if it can do without, say by result(...) what its result must be.");
    }
    Set<String> undone = new LinkedHashSet<>();
    for (ScenarioCall call : scenario) {
      boolean isOfFault = call.kind().equals(variant.call().kind());
      if (!settings.allowsLeavingOut(call.request())
          && observed.count(call.kind(), isOfFault) < timesInScenario(call.kind())) {
        undone.add(call.kind());
      }
    }
    undone.forEach(
        kind ->
            findings.add(
                "It returned, but left a call undone: "
                    + kind
                    + "\nFix: make it; or, if it depends on the one that failed, mayLeaveOut(\""
                    + kind
                    + "\")."));
  }

  private void judgeRepeats() {
    int repeats = repeats();
    if (repeats > settings.retries()) {
      findings.add(
          String.format(
              "It repeated the call %s; %d are allowed.\nFix: limit the retries, or"
                  + " retries(%d).",
              repeats == 1 ? "once" : repeats + " times", settings.retries(), repeats));
    }
    String method = variant.call().request().method();
    if (repeats > 0
        && observed.isMet()
        && variant.fault().mayHaveBeenProcessed()
        && !variant.call().request().isIdempotent()
        && !hasSameKey()
        && !settings.allowsRepeating(variant.call().request())) {
      findings.add(
          "It repeated a call that is not idempotent: the service may have processed the first "
              + method
              + ", so this may do it twice (RFC 9110 section 9.2.2).\nFix: ask whether it was done,"
              + " or send an idempotency-key; or, if the service recognizes it, mayRepeat(\""
              + variant.call().kind()
              + "\").");
    }
  }

  /** Returns true if all attempts have the same key, by which the service recognizes them. */
  private boolean hasSameKey() {
    Set<Optional<String>> keys =
        observed
            .of(variant.call().kind())
            .map(it -> it.request().headers().first(KEY_HEADER))
            .collect(Collectors.toSet());
    return keys.size() == 1 && keys.iterator().next().isPresent();
  }
}
