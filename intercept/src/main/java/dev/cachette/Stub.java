package dev.cachette;

import static dev.cachette.internal.calls.CallsAccess.callsAccess;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.internal.resource.Resources;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.StubCheck;
import dev.cachette.internal.stub.StubRule;
import dev.cachette.internal.stubfile.StubWriter;
import dev.cachette.match.Condition;
import dev.cachette.match.Received;
import dev.cachette.match.RequestConditions;
import dev.cachette.match.RequestPattern;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * A request pattern and its answers. Begun with {@link Cachette#stub(String)}, in force from {@link
 * #answer} on, until its scope ends.
 *
 * <p>What stands before {@code answer} narrows the requests, and checks them; what follows it says
 * how often and when the stub answers. Declare a stub on one thread; once it has its answer, any
 * thread may read it.
 */
public final class Stub implements RequestConditions<Stub>, CallGroup {

  private final Cachette net;
  private final DraftStub draft;
  private volatile @Nullable StubRule rule;

  Stub(Cachette net, DraftStub draft) {
    this.net = net;
    this.draft = draft;
  }

  /** One that is in force already. */
  Stub(Cachette net, DraftStub draft, StubRule rule) {
    this(net, draft);
    this.rule = rule;
  }

  /**
   * Gives the stub a name, which then stands in explanations in place of its request line.
   *
   * @throws IllegalArgumentException if the name is null or blank
   * @throws IllegalStateException if the stub has its answer already
   */
  public Stub named(String name) {
    if (name == null || name.isBlank()) {
      throw new IllegalArgumentException("The name of a stub must be some text, not " + name + ".");
    }
    requireUnanswered("named(\"" + name + "\")");
    draft.rename(name);
    return this;
  }

  /**
   * Narrows the requests: all these conditions hold, too.
   *
   * @throws IllegalArgumentException if one is null, or is on a variable that the request line does
   *     not have
   * @throws IllegalStateException if the stub has its answer already
   */
  @Override
  public Stub where(Condition... conditions) {
    requireUnanswered("a condition");
    draft.narrow(draft.pattern().where(conditions));
    return this;
  }

  /**
   * Adds something that must hold for every request that this stub answers. It does not narrow:
   * where it does not hold, the caller gets status 500 with the reason, and the test fails at its
   * end, whatever the code under test does with that.
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
   * Adds a check of one's own, as {@link #check(Condition)}: what it throws fails the test.
   *
   * @param assertion looks at the request, and throws if it is not right
   */
  public Stub check(Consumer<Received> assertion) {
    requireGiven("check(assertion)", assertion);
    requireUnanswered("check(...)");
    draft.check(new StubCheck(assertion));
    return this;
  }

  /**
   * Writes the bodies of its requests to a file as they arrive, and holds none of them in memory;
   * for bodies of any size. To conditions and in the log these requests have no body. Each request
   * writes the file again.
   *
   * @param path the path of the file, from the working directory if it is relative
   * @throws IllegalArgumentException if the path is null, or its folder is not there
   * @throws IllegalStateException if the stub has its answer already
   */
  public Stub saveBodyTo(String path) {
    requireGiven("saveBodyTo(path)", path);
    requireUnanswered("saveBodyTo(...)");
    draft.keepBodyIn(Resources.requireWritable(path));
    return this;
  }

  /**
   * Gives the stub its answers, and puts it into force. Several are given in turn, one a call; the
   * last one stays, unless what follows says otherwise.
   *
   * @throws IllegalArgumentException if an answer is null, or names a file that cannot be read
   * @throws IllegalStateException if the stub has its answer already, or its scope has ended
   */
  public Stub answer(Answer first, Answer... more) {
    requireUnanswered("answer(...)");
    List<Answer> answers = new ArrayList<>();
    answers.add(first);
    answers.addAll(Arrays.asList(more == null ? new Answer[] {null} : more));
    int missing = answers.indexOf(null);
    if (missing >= 0) {
      throw new IllegalArgumentException(
          String.format(
              "Answer %d of %d for the stub %s is null. Fix: make one with Answers, such as "
                  + "status(204).",
              missing + 1, answers.size(), draft.reference()));
    }
    rule = net.finish(draft, answers);
    return this;
  }

  /**
   * Neither its requests nor its answers are held against the description of their service, see
   * {@link Cachette#describedBy}: for a malformed answer that is meant, or for one that tells how
   * the code takes it.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub unchecked() {
    net.change(answered("unchecked()"), StubRule::unchecked);
    return this;
  }

  /**
   * After the last answer, the first one follows again.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub looping() {
    net.change(answered("looping()"), StubRule::looping);
    return this;
  }

  /**
   * Each answer is given once; then the stub is used up, and the next one that matches answers.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub onceEach() {
    net.change(answered("onceEach()"), StubRule::onceEach);
    return this;
  }

  /**
   * Returns the stub answers so many calls; then it is used up, and the next one that matches
   * answers.
   *
   * @throws IllegalArgumentException if the number is not positive
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub times(int calls) {
    requirePositive("times", calls);
    net.change(answered("times(" + calls + ")"), it -> it.times(calls));
    return this;
  }

  /**
   * One call gets this answer, in place of the one whose turn it would be.
   *
   * @param number which call of this stub it is, from 1
   * @throws IllegalArgumentException if the number is not positive, or the answer is null
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub onCall(int number, Answer answer) {
    requirePositive("onCall", number);
    requireGiven("onCall(" + number + ", answer)", answer);
    Answer ready = net.ready(answer);
    net.change(answered("onCall(...)"), it -> it.onCall(number, ready));
    return this;
  }

  /**
   * Returns the stub is active only once another one was called in the same test: {@code
   * list.answer(json(withKittiwake)).after(create)}.
   *
   * @throws IllegalArgumentException if the other is null, or is this one
   * @throws IllegalStateException if this stub or the other has no answer yet
   */
  public Stub after(Stub other) {
    requireGiven("after(stub)", other);
    if (other == this) {
      throw new IllegalArgumentException(
          "A stub cannot be active only after itself: " + this + ".");
    }
    StubRule predecessor = other.answered("after(...)");
    net.change(answered("after(...)"), it -> it.activeAfter(predecessor));
    return this;
  }

  /**
   * Returns the stub is active at and after this instant, by the clock of the settings.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub from(Instant instant) {
    requireGiven("from(instant)", instant);
    net.change(answered("from(...)"), it -> it.activeFrom(instant));
    return this;
  }

  /**
   * Returns the stub is active before this instant, by the clock of the settings.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub until(Instant instant) {
    requireGiven("until(instant)", instant);
    net.change(answered("until(...)"), it -> it.activeUntil(instant));
    return this;
  }

  /**
   * Returns the service takes so many calls in a window of time, and answers 429 with {@code
   * retry-after} to the others (RFC 6585 section 4), by the clock of the settings. A window begins
   * with the first call that comes when there is none; what is answered 429 takes no answer's turn.
   *
   * @throws IllegalArgumentException if the number or the window is not positive
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub rateLimit(int calls, Duration window) {
    requirePositive("rateLimit", calls);
    requireGiven("rateLimit(calls, window)", window);
    if (window.isNegative() || window.isZero()) {
      throw new IllegalArgumentException("rateLimit takes a positive window, not " + window + ".");
    }
    net.change(answered("rateLimit(...)"), it -> it.rateLimit(calls, window));
    return this;
  }

  /**
   * Returns the service is not up yet: its first calls are answered 503, and take no answer's turn.
   *
   * @throws IllegalArgumentException if the number is not positive
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub failFirst(int calls) {
    requirePositive("failFirst", calls);
    net.change(answered("failFirst(...)"), it -> it.failFirst(calls));
    return this;
  }

  /**
   * Returns the service fails now and then, drawn at random by the seed of the settings; what fails
   * takes no answer's turn. Where a test fails, the JUnit extension names the seed that makes it so
   * again.
   *
   * @param probability how likely a call fails, from 0 to 1
   * @param failures what it gets then, in turn and again from the first; {@code status(503)} if
   *     none is given
   * @throws IllegalArgumentException if the probability is no such number, or a failure is null or
   *     comes before there is a request
   * @throws IllegalStateException if the stub has no answer yet
   */
  public Stub flaky(double probability, Answer... failures) {
    if (!(probability >= 0 && probability <= 1)) {
      throw new IllegalArgumentException(
          "flaky takes a probability from 0 to 1, not " + probability + ".");
    }
    requireGiven("flaky(probability, failures)", failures);
    List<Answer> ready = new ArrayList<>();
    for (Answer failure : failures) {
      requireGiven("A failure of flaky(probability, failures)", failure);
      ready.add(net.ready(failure));
    }
    List<Answer> all = ready.isEmpty() ? List.of(Answers.status(503)) : ready;
    net.change(answered("flaky(...)"), it -> it.flaky(probability, all, net.seed()));
    return this;
  }

  /**
   * Returns the stub as a stub file has it, in YAML.
   *
   * @throws IllegalStateException if it has no answer yet, or if part of it is a function, a gate
   *     or a feed, which no file can have; the message says which
   */
  public String toStubFile() {
    StubWriter.Result written = StubWriter.write(answered("toStubFile()"));
    return StubWriter.yaml(
        List.of(
            written
                .form()
                .orElseThrow(
                    () ->
                        new IllegalStateException(
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
        : callsAccess().answeredBy(net.calls(), finished.reference(), finished.pattern());
  }

  /**
   * Returns true if it is not held against the description of its service.
   *
   * @throws IllegalStateException if the stub has no answer yet
   */
  public boolean isUnchecked() {
    return answered("isUnchecked()").isUnchecked();
  }

  /** Returns which requests it is for. */
  public RequestPattern pattern() {
    return draft.pattern();
  }

  /**
   * Its answers, in turn.
   *
   * @throws IllegalStateException if it has none yet
   */
  public List<Answer> answers() {
    return answered("answers()").answers();
  }

  /** Its name; where it was given none, its request line. */
  String name() {
    return draft.reference().name();
  }

  private StubRule answered(String method) {
    StubRule finished = rule;
    if (finished == null) {
      throw new IllegalStateException(
          String.format(
              "The stub %s has no answer yet, so %s comes too early. "
                  + "Fix: say it behind .answer(...).",
              draft.reference(), method));
    }
    return finished;
  }

  private void requireUnanswered(String method) {
    if (rule != null) {
      throw new IllegalStateException(
          String.format(
              "The stub %s has its answer already, so %s comes too late. "
                  + "Fix: give all answers in one answer(a, b, ...), and all else before it.",
              draft.reference(), method));
    }
  }

  private static void requirePositive(String method, int number) {
    if (number < 1) {
      throw new IllegalArgumentException(method + " takes a positive number, not " + number + ".");
    }
  }

  private static void requireGiven(String what, @Nullable Object value) {
    if (value == null) {
      throw new IllegalArgumentException(what + " was given null.");
    }
  }

  /** Its name in quotes, and where it was declared. */
  @Override
  public String toString() {
    return draft.reference().toString();
  }
}
