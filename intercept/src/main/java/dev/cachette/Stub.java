// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Answers;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.calls.CallsInternals;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.FailFirst;
import dev.cachette.internal.model.Flaky;
import dev.cachette.internal.model.RateLimit;
import dev.cachette.internal.model.StubCheck;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.resource.Resources;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.internal.stubfile.StubWriter;
import dev.cachette.match.Condition;
import dev.cachette.match.Received;
import dev.cachette.match.RequestConditions;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * A request pattern and its answers. Declared with {@link Cachette#stub(String)}, active from
 * {@link #answer} until its scope ends.
 *
 * <p>Methods before {@code answer} add conditions and checks; methods after it set how often and
 * when the stub answers; {@code named} and {@code overriding} can stand on both sides. Declare a
 * stub on one thread; once it has its answer, any thread may read it.
 */
public final class Stub implements RequestConditions<Stub>, CallGroup {

  private final Cachette net;
  private final DraftStub draft;
  private volatile @Nullable StubRule rule;

  Stub(Cachette net, DraftStub draft) {
    this.net = net;
    this.draft = draft;
  }

  /** Wraps an active stub. */
  Stub(Cachette net, DraftStub draft, StubRule rule) {
    this(net, draft);
    this.rule = rule;
  }

  /**
   * Sets the name of the stub, which explanations show instead of its request line.
   *
   * @throws IllegalArgumentException if the name is null or blank
   * @throws IllegalStateException if the stub has answered a call already
   */
  public Stub named(String name) {
    if (name == null || name.isBlank()) {
      throw Refusals.argument("The name of a stub must not be blank: " + name + ".");
    }
    if (rule != null) {
      net.stubs().change(rule, it -> it.named(name));
    }
    draft.rename(name);
    return this;
  }

  /**
   * Requires all these conditions.
   *
   * @throws IllegalArgumentException if one is null, or is on a variable that the request line does
   *     not have
   * @throws IllegalStateException if the stub has its answer already
   */
  @Override
  public Stub where(Condition... conditions) {
    requireUnanswered("conditions");
    draft.narrow(draft.pattern().where(conditions));
    return this;
  }

  /**
   * Checks every request that this stub answers. A check is not a condition: if it fails, the
   * caller gets status 500 with the reason, and the test fails at its end, whatever the code under
   * test does with that.
   *
   * @throws IllegalArgumentException if the condition is null
   * @throws IllegalStateException if the stub has its answer already
   */
  public Stub check(Condition condition) {
    requireGiven("check(condition)", condition);
    requireUnanswered("check(...)");
    draft.check(StubCheck.of(condition));
    return this;
  }

  /**
   * Adds a check, like {@link #check(Condition)}; an exception that it throws fails the test.
   *
   * @param assertion inspects the request, and throws if it is wrong
   */
  public Stub check(Consumer<Received> assertion) {
    requireGiven("check(assertion)", assertion);
    requireUnanswered("check(...)");
    draft.check(new StubCheck(assertion));
    return this;
  }

  /**
   * Saves the bodies of its requests to a file, like {@link #saveBodyTo(String)}.
   *
   * @throws IllegalArgumentException if the path is null, or its folder does not exist
   * @throws IllegalStateException if the stub has its answer already
   */
  public Stub saveBodyTo(Path path) {
    requireGiven("saveBodyTo(path)", path);
    return saveBodyTo(path.toString());
  }

  /**
   * Saves the bodies of its requests to a file as they arrive, without holding them in memory; for
   * bodies of any size. For conditions and in the log, these requests have no body. Each request
   * overwrites the file.
   *
   * @param path the path of the file, relative to the working directory
   * @throws IllegalArgumentException if the path is null, or its folder does not exist
   * @throws IllegalStateException if the stub has its answer already
   */
  public Stub saveBodyTo(String path) {
    requireGiven("saveBodyTo(path)", path);
    requireUnanswered("saveBodyTo(...)");
    draft.keepBodyIn(Resources.requireWritable(path));
    return this;
  }

  /**
   * Sets the answers, and activates the stub. Several answers are given in turn, one per call; the
   * last one stays, unless a later method changes that.
   *
   * @throws IllegalArgumentException if an answer is null, names a file that cannot be read, or has
   *     a template with an unknown path variable
   * @throws IllegalStateException if the stub has its answer already, or its scope has ended
   */
  public Stub answer(Answer first, Answer... more) {
    requireUnanswered("answer(...)");
    rule =
        net.stubs().finish(draft, all("answer(...) of the stub " + draft.reference(), first, more));
    return this;
  }

  static List<Answer> all(String what, Answer first, Answer... more) {
    List<Answer> answers = new ArrayList<>();
    answers.add(first);
    answers.addAll(Arrays.asList(more == null ? new Answer[] {null} : more));
    int missing = answers.indexOf(null);
    if (missing >= 0) {
      throw Refusals.argument(
          String.format(
              "%s: answer %d of %d is null. Fix: create one with Answers, such as status(204).",
              what, missing + 1, answers.size()));
    }
    return answers;
  }

  /**
   * Excludes its requests and answers from checks against the API description of their service, see
   * {@link Cachette#describedBy}: for an answer that is malformed on purpose.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub unchecked() {
    net.stubs().change(answered("unchecked()"), it -> it.with(StubSpec.Trait.UNCHECKED));
    return this;
  }

  /**
   * Starts again with the first answer after the last one.
   *
   * @throws IllegalStateException if the stub has no answer yet, or is {@link #onceEach()}
   */
  public Stub looping() {
    net.stubs().change(answered("looping()"), StubSpec::looping);
    return this;
  }

  /**
   * Gives each answer once; then the stub is used up, and the next matching stub answers.
   *
   * @throws IllegalStateException if the stub has no answer yet, or is {@link #looping()}
   */
  public Stub onceEach() {
    net.stubs().change(answered("onceEach()"), StubSpec::onceEach);
    return this;
  }

  /**
   * Answers at most this number of calls; then the stub is used up, and the next matching stub
   * answers.
   *
   * @throws IllegalArgumentException if the number is not positive
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub times(int calls) {
    requirePositive("times", calls);
    net.stubs().change(answered("times(" + calls + ")"), it -> it.times(calls));
    return this;
  }

  /**
   * Gives this answer to one call, instead of the next one in turn.
   *
   * @param number the number of the call of this stub, from 1
   * @throws IllegalArgumentException if the number is not positive, or the answer is null
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub onCall(int number, Answer answer) {
    requirePositive("onCall", number);
    requireGiven("onCall(" + number + ", answer)", answer);
    Answer ready = AnswerInternals.expanded(net.stubs().ready(answer)).get(0);
    net.stubs().change(answered("onCall(...)"), it -> it.onCall(number, ready));
    return this;
  }

  /**
   * Wins over more specific stubs of the same scope, for a stub that must answer every request that
   * it matches.
   */
  public Stub overriding() {
    if (rule == null) {
      draft.overriding();
    } else {
      net.stubs().change(rule, it -> it.with(StubSpec.Trait.OVERRIDING));
    }
    return this;
  }

  /**
   * Activates the stub only after another one was called in the same test: {@code
   * list.answer(json(withKittiwake)).after(create)}.
   *
   * @throws IllegalArgumentException if the other is null, or is this one
   * @throws IllegalStateException if this stub or the other has no answer yet
   */
  public Stub after(Stub other) {
    requireGiven("after(stub)", other);
    if (other == this) {
      throw Refusals.argument("A stub cannot be active after itself: " + this + ".");
    }
    StubRule predecessor = other.answered("after(...)");
    net.stubs().activateAfter(answered("after(...)"), predecessor);
    return this;
  }

  /**
   * Activates the stub at this instant, by {@link Cachette#clock()}.
   *
   * @throws IllegalArgumentException if the instant is null, or not before {@link #until}
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub from(Instant instant) {
    requireGiven("from(instant)", instant);
    net.stubs().change(answered("from(...)"), it -> it.activeFrom(instant));
    return this;
  }

  /**
   * Expires the stub at this instant, by {@link Cachette#clock()}.
   *
   * @throws IllegalArgumentException if the instant is null, or not after {@link #from}
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub until(Instant instant) {
    requireGiven("until(instant)", instant);
    net.stubs().change(answered("until(...)"), it -> it.activeUntil(instant));
    return this;
  }

  /**
   * Limits the number of calls in a window of time, and answers 429 with {@code retry-after} to
   * others (RFC 6585 section 4), by {@link Cachette#clock()}. A window begins with the first call
   * outside of one; a 429 uses no answer.
   *
   * @throws IllegalArgumentException if the number or the window is not positive
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub rateLimit(int calls, Duration window) {
    requirePositive("rateLimit", calls);
    requireGiven("rateLimit(calls, window)", window);
    if (window.isNegative() || window.isZero()) {
      throw Refusals.argument("rateLimit needs a positive window, not " + window + ".");
    }
    net.stubs().change(answered("rateLimit(...)"), it -> it.with(new RateLimit(calls, window)));
    return this;
  }

  /**
   * Answers the first calls with 503, like a service that is still starting; a 503 uses no answer.
   *
   * @throws IllegalArgumentException if the number is not positive
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub failFirst(int calls) {
    requirePositive("failFirst", calls);
    net.stubs().change(answered("failFirst(...)"), it -> it.with(new FailFirst(calls)));
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
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub flaky(double probability, Answer... failures) {
    if (!(probability >= 0 && probability <= 1)) {
      throw Refusals.argument("flaky needs a probability from 0 to 1, not " + probability + ".");
    }
    requireGiven("flaky(probability, failures)", failures);
    List<Answer> ready = new ArrayList<>();
    for (Answer failure : failures) {
      requireGiven("A failure of flaky(probability, failures)", failure);
      ready.addAll(AnswerInternals.expanded(net.stubs().ready(failure)));
    }
    List<Answer> all = ready.isEmpty() ? List.of(Answers.status(503)) : ready;
    net.stubs().change(answered("flaky(...)"), it -> it.with(new Flaky(probability, all)));
    return this;
  }

  /**
   * Returns the stub in the format of stub files, in YAML, with its secrets masked.
   *
   * @throws IllegalStateException if it has no answer yet, or if it contains a function, a gate or
   *     a feed, which cannot be written; the message says which
   */
  public String toStubFile() {
    StubWriter.Result written = StubWriter.write(answered("toStubFile()"));
    return StubWriter.yaml(
        List.of(
            written
                .form()
                .orElseThrow(
                    () ->
                        Refusals.state(
                            String.format(
                                "The stub %s cannot be written to a file: %s.",
                                draft.reference(), written.obstacle())))),
        List.of());
  }

  /** Returns the calls that this stub has answered, in its scope. */
  @Override
  public Calls calls() {
    StubRule finished = rule;
    return finished == null
        ? net.calls().matching("the stub " + draft.reference(), call -> false)
        : CallsInternals.answeredBy(net.calls(), finished.reference(), finished.pattern());
  }

  /**
   * Returns true if it is excluded from checks against the API description of its service.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public boolean isUnchecked() {
    return answered("isUnchecked()").spec().has(StubSpec.Trait.UNCHECKED);
  }

  /** Returns its request pattern. */
  public RequestPattern pattern() {
    return draft.pattern();
  }

  /**
   * Returns its answers, in turn; a repeated answer counts several times.
   *
   * @throws IllegalStateException if it has none yet
   */
  public List<Answer> answers() {
    return answered("answers()").spec().order().answers();
  }

  /** Returns its name and the place of its declaration. */
  public StubReference reference() {
    return draft.reference();
  }

  /** Returns its name, or its request line. */
  String name() {
    return draft.reference().name();
  }

  private StubRule answered(String method) {
    StubRule finished = rule;
    if (finished == null) {
      throw Refusals.state(
          String.format(
              "The stub %s has no answer yet. Fix: call %s after answer(...).",
              draft.reference(), method));
    }
    return finished;
  }

  private void requireUnanswered(String method) {
    if (rule != null) {
      throw Refusals.state(
          String.format(
              "The stub %s has its answer already. Fix: call %s before answer(...), which takes all"
                  + " answers: answer(a, b, ...).",
              draft.reference(), method));
    }
  }

  static void requirePositive(String method, int number) {
    if (number < 1) {
      throw Refusals.argument(method + " needs a positive number, not " + number + ".");
    }
  }

  private static void requireGiven(String what, @Nullable Object value) {
    if (value == null) {
      throw Refusals.argument(what + " was given null.");
    }
  }

  /** Returns its name in quotes, and the place of its declaration. */
  @Override
  public String toString() {
    return draft.reference().toString();
  }
}
