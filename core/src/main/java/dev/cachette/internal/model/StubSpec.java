// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.template.Template;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.time.Instant;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A stub as data: a request pattern, its answers, and when it is active. Immutable; what changes
 * one returns a new one, and refuses what cannot be.
 *
 * @param pattern its request pattern
 * @param reference its name and place
 * @param checks what is checked of the requests that it answers
 * @param bodyFile the file for the bodies of its requests
 * @param order its answers
 * @param period when it is active
 * @param behaviors how it behaves besides
 * @param traits what else is true of it
 * @param extensions what other modules say of it, in the form of stub files; not interpreted here
 */
public record StubSpec(
    RequestPattern pattern,
    StubReference reference,
    List<StubCheck> checks,
    Optional<String> bodyFile,
    AnswerOrder order,
    ActivePeriod period,
    List<Behavior> behaviors,
    Set<Trait> traits,
    Map<String, JsonNode> extensions) {

  /** A statement that is true of a stub, or not. */
  public enum Trait {
    /** It wins over more specific stubs of the same scope. */
    OVERRIDING,
    /** Its calls are not checked against the API description. */
    UNCHECKED,
    /** It is not listed among the stubs: no user has declared it. */
    UNLISTED
  }

  /** Copies the collections. */
  public StubSpec {
    checks = List.copyOf(checks);
    behaviors = List.copyOf(behaviors);
    traits = Set.copyOf(traits);
    extensions = Map.copyOf(extensions);
  }

  /**
   * Returns a stub that always answers.
   *
   * @param answers at least one
   * @throws IllegalArgumentException if one of them is impossible
   */
  public static StubSpec of(RequestPattern pattern, StubReference reference, List<Answer> answers) {
    StubSpec spec =
        new StubSpec(
            pattern,
            reference,
            List.of(),
            Optional.empty(),
            AnswerOrder.of(answers),
            ActivePeriod.ALWAYS,
            List.of(),
            Set.of(),
            Map.of());
    spec.order.answers().forEach(spec::requirePossible);
    return spec;
  }

  /** Returns it with checks, and with a file for the bodies of its requests. */
  public StubSpec with(List<StubCheck> newChecks, Optional<String> file) {
    return new StubSpec(
        pattern, reference, newChecks, file, order, period, behaviors, traits, extensions);
  }

  /** Returns it with another name. */
  public StubSpec named(String name) {
    StubReference renamed = new StubReference(name, reference.place());
    return new StubSpec(
        pattern, renamed, checks, bodyFile, order, period, behaviors, traits, extensions);
  }

  /** Repeats the answers from the first one. */
  public StubSpec looping() {
    requireFree("looping()", order.then() == AnswerOrder.Then.USED_UP, "onceEach()");
    return with(order.then(AnswerOrder.Then.FIRST_AGAIN));
  }

  /** Gives each answer once. */
  public StubSpec onceEach() {
    requireFree("onceEach()", order.then() == AnswerOrder.Then.FIRST_AGAIN, "looping()");
    return with(order.then(AnswerOrder.Then.USED_UP));
  }

  /** Limits the number of calls. */
  public StubSpec times(int calls) {
    return with(order.limit(calls));
  }

  /** Sets the answer to one call. */
  public StubSpec onCall(int number, Answer answer) {
    requirePossible(answer);
    return with(order.onCall(number, answer));
  }

  /** Activates it at an instant. */
  public StubSpec activeFrom(Instant instant) {
    return with(new ActivePeriod(instant, period.until()));
  }

  /** Expires it at an instant. */
  public StubSpec activeUntil(Instant instant) {
    return with(new ActivePeriod(period.from(), instant));
  }

  /** Adds a behavior. */
  public StubSpec with(Behavior behavior) {
    if (behavior instanceof Flaky flaky) {
      flaky.failures().forEach(this::requireLate);
    }
    return new StubSpec(
        pattern,
        reference,
        checks,
        bodyFile,
        order,
        period,
        Stream.concat(behaviors.stream(), Stream.of(behavior)).toList(),
        traits,
        extensions);
  }

  /** Adds a trait. */
  public StubSpec with(Trait trait) {
    Set<Trait> more = EnumSet.of(trait);
    more.addAll(traits);
    return new StubSpec(
        pattern, reference, checks, bodyFile, order, period, behaviors, more, extensions);
  }

  /** Sets what another module says of it, under a key of stub files. */
  public StubSpec with(String key, JsonNode value) {
    Map<String, JsonNode> more = new HashMap<>(extensions);
    more.put(key, value);
    return new StubSpec(
        pattern, reference, checks, bodyFile, order, period, behaviors, traits, more);
  }

  /** Returns true if it has a trait. */
  public boolean has(Trait trait) {
    return traits.contains(trait);
  }

  private StubSpec with(AnswerOrder other) {
    return new StubSpec(
        pattern, reference, checks, bodyFile, other, period, behaviors, traits, extensions);
  }

  private StubSpec with(ActivePeriod other) {
    if (!other.from().isBefore(other.until())) {
      throw Refusals.argument(
          String.format(
              "The stub %s would never be active: from %s, until %s.",
              reference, other.from(), other.until()));
    }
    return new StubSpec(
        pattern, reference, checks, bodyFile, order, other, behaviors, traits, extensions);
  }

  private void requireFree(String method, boolean taken, String other) {
    if (taken) {
      throw Refusals.state(
          String.format(
              "The stub %s cannot be %s and %s. Fix: remove one of them.",
              reference, other, method));
    }
  }

  private void requirePossible(Answer answer) {
    if (answer instanceof ResponseAnswer plain && AnswerInternals.delivery(plain).template()) {
      Template.requireVariables(
          plain.response(), MatchInternals.variables(pattern), pattern.line());
    }
    if (MatchInternals.isPlain(pattern)
        && answer instanceof Fault fault
        && fault.kind().stage() == Fault.Stage.HANDSHAKE) {
      throw Refusals.argument(
          String.format(
              "The stub %s is for plain HTTP, which has no TLS, so \"%s\" is impossible. Fix: stub"
                  + " https://.",
              reference, fault));
    }
  }

  private void requireLate(Answer failure) {
    if (AnswerInternals.isEarly(failure)) {
      throw Refusals.argument(
          String.format(
              "The stub %s cannot fail with \"%s\", which happens before there is a request. Fix:"
                  + " use connectionReset(), noResponse(), or a status.",
              reference, failure));
    }
  }
}
