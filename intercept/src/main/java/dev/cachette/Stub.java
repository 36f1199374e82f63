// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Answers;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.calls.CallsInternals;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.FailFirst;
import dev.cachette.internal.model.Flaky;
import dev.cachette.internal.model.RateLimit;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.stubfile.StubWriter;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * An active stub: a request pattern and its answers, see {@link Cachette#stub(String)} and {@link
 * UnansweredStub#answer}. Its methods set how often and when it answers, until its scope ends.
 *
 * <p>Declare a stub on one thread; any thread may read it.
 */
public final class Stub implements CallGroup {

  private final Cachette net;
  private final StubRule rule;

  Stub(Cachette net, StubRule rule) {
    this.net = net;
    this.rule = rule;
  }

  /**
   * Sets the name of the stub, which explanations show instead of its request line.
   *
   * @throws IllegalArgumentException if the name is null or blank
   * @throws IllegalStateException if the stub has answered a call already
   */
  public Stub named(String name) {
    StubArguments.name(name);
    net.stubs().change(rule, it -> it.named(name));
    return this;
  }

  /**
   * Excludes its requests and answers from checks against the API description of their service, see
   * {@link Cachette#describedBy}: for an answer that is malformed on purpose.
   */
  public Stub unchecked() {
    net.stubs().change(rule, it -> it.with(StubSpec.Trait.UNCHECKED));
    return this;
  }

  /**
   * Starts again with the first answer after the last one.
   *
   * @throws IllegalStateException if the stub is {@link #onceEach()}
   */
  public Stub looping() {
    net.stubs().change(rule, StubSpec::looping);
    return this;
  }

  /**
   * Gives each answer once; then the stub is used up, and the next matching stub answers.
   *
   * @throws IllegalStateException if the stub is {@link #looping()}
   */
  public Stub onceEach() {
    net.stubs().change(rule, StubSpec::onceEach);
    return this;
  }

  /**
   * Answers at most this number of calls; then the stub is used up, and the next matching stub
   * answers.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Stub times(int calls) {
    StubArguments.positive("times", calls);
    net.stubs().change(rule, it -> it.times(calls));
    return this;
  }

  /**
   * Gives this answer to one call, instead of the next one in turn.
   *
   * @param number the number of the call of this stub, from 1
   * @throws IllegalArgumentException if the number is not positive, or the answer is null
   */
  public Stub onCall(int number, Answer answer) {
    StubArguments.positive("onCall", number);
    Refusals.given("onCall(" + number + ", answer)", answer);
    Answer ready = AnswerInternals.expanded(net.stubs().ready(answer)).get(0);
    net.stubs().change(rule, it -> it.onCall(number, ready));
    return this;
  }

  /**
   * Wins over more specific stubs of the same scope, for a stub that must answer every request that
   * it matches.
   */
  public Stub overriding() {
    net.stubs().change(rule, it -> it.with(StubSpec.Trait.OVERRIDING));
    return this;
  }

  /**
   * Activates the stub only after another one was called in the same test: {@code
   * list.answer(json(withKittiwake)).after(create)}.
   *
   * @throws IllegalArgumentException if the other is null, or is this one
   */
  public Stub after(Stub other) {
    Refusals.given("after(stub)", other);
    if (other == this) {
      throw Refusals.argument("A stub cannot be active after itself: " + this + ".");
    }
    StubRule predecessor = other.rule;
    net.stubs().activateAfter(rule, predecessor);
    return this;
  }

  /**
   * Activates the stub at this instant, by {@link Cachette#clock()}.
   *
   * @throws IllegalArgumentException if the instant is null, or not before {@link #until}
   */
  public Stub from(Instant instant) {
    Refusals.given("from(instant)", instant);
    net.stubs().change(rule, it -> it.activeFrom(instant));
    return this;
  }

  /**
   * Expires the stub at this instant, by {@link Cachette#clock()}.
   *
   * @throws IllegalArgumentException if the instant is null, or not after {@link #from}
   */
  public Stub until(Instant instant) {
    Refusals.given("until(instant)", instant);
    net.stubs().change(rule, it -> it.activeUntil(instant));
    return this;
  }

  /**
   * Limits the number of calls in a window of time, and answers 429 with {@code retry-after} to
   * others (RFC 6585 section 4), by {@link Cachette#clock()}. A window begins with the first call
   * outside of one; a 429 uses no answer.
   *
   * @throws IllegalArgumentException if the number or the window is not positive
   */
  public Stub rateLimit(int calls, Duration window) {
    StubArguments.positive("rateLimit", calls);
    Refusals.given("rateLimit(calls, window)", window);
    if (window.isNegative() || window.isZero()) {
      throw Refusals.argument("rateLimit needs a positive window, not " + window + ".");
    }
    net.stubs().change(rule, it -> it.with(new RateLimit(calls, window)));
    return this;
  }

  /**
   * Answers the first calls with 503, like a service that is still starting; a 503 uses no answer.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Stub failFirst(int calls) {
    StubArguments.positive("failFirst", calls);
    net.stubs().change(rule, it -> it.with(new FailFirst(calls)));
    return this;
  }

  /**
   * Fails at random, with the seed of the settings; a failure uses no answer. If a test fails, the
   * JUnit extension reports the seed.
   *
   * @param probability the probability of a failure, from 0 to 1
   * @param failures the failures, in turn and from the first again; {@code status(503)} by default
   * @throws IllegalArgumentException if the probability is out of range, or a failure is null or
   *     happens before there is a request
   */
  public Stub flaky(double probability, Answer... failures) {
    if (!(probability >= 0 && probability <= 1)) {
      throw Refusals.argument("flaky needs a probability from 0 to 1, not " + probability + ".");
    }
    Refusals.given("flaky(probability, failures)", failures);
    List<Answer> ready = new ArrayList<>();
    for (Answer failure : failures) {
      Refusals.given("A failure of flaky(probability, failures)", failure);
      ready.addAll(AnswerInternals.expanded(net.stubs().ready(failure)));
    }
    List<Answer> all = ready.isEmpty() ? List.of(Answers.status(503)) : ready;
    net.stubs().change(rule, it -> it.with(new Flaky(probability, all)));
    return this;
  }

  /**
   * Returns the stub in the format of stub files, in YAML, with its secrets masked.
   *
   * @throws IllegalStateException if it contains a function, a gate or a feed, which cannot be
   *     written; the message says which
   */
  public String toStubFile() {
    StubWriter.Result written = StubWriter.write(rule.declared());
    return StubWriter.yaml(
        List.of(
            written
                .form()
                .orElseThrow(
                    () ->
                        Refusals.state(
                            String.format(
                                "The stub %s cannot be written to a file: %s.",
                                rule.reference(), written.obstacle())))),
        List.of());
  }

  /** Returns the calls that this stub has answered, in its scope. */
  @Override
  public Calls calls() {
    return CallsInternals.answeredBy(net.calls(), rule.reference(), rule.pattern());
  }

  /** Returns true if it is excluded from checks against the API description of its service. */
  public boolean isUnchecked() {
    return rule.spec().has(StubSpec.Trait.UNCHECKED);
  }

  /** Returns its request pattern. */
  public RequestPattern pattern() {
    return rule.pattern();
  }

  /**
   * Returns its answers, in turn; a repeated answer counts several times.
   *
   * @throws IllegalStateException if it has none yet
   */
  public List<Answer> answers() {
    return rule.spec().order().answers();
  }

  /** Returns its name and the place of its declaration. */
  public StubReference reference() {
    return rule.reference();
  }

  StubRule rule() {
    return rule;
  }

  Cachette net() {
    return net;
  }

  /** Returns its name, or its request line. */
  String name() {
    return rule.reference().name();
  }

  /** Returns its name in quotes, and the place of its declaration. */
  @Override
  public String toString() {
    return rule.reference().toString();
  }
}
