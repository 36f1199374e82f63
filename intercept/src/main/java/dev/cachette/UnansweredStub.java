// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.StubCheck;
import dev.cachette.internal.resource.Resources;
import dev.cachette.match.Condition;
import dev.cachette.match.Received;
import dev.cachette.match.RequestConditions;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;

/**
 * A stub that has no answer yet: the requests that it is for. Declared with {@link
 * Cachette#stub(String)}; {@link #answer} activates it, and what comes after that, such as {@code
 * times(2)}, is said of the {@link Stub} that it returns.
 *
 * <p>For one thread.
 */
public final class UnansweredStub implements RequestConditions<UnansweredStub> {

  private final Cachette net;
  private final DraftStub draft;
  private volatile boolean hasAnswer;

  UnansweredStub(Cachette net, DraftStub draft) {
    this.net = net;
    this.draft = draft;
  }

  /**
   * Sets the name of the stub, which explanations show instead of its request line.
   *
   * @throws IllegalArgumentException if the name is null or blank
   * @throws IllegalStateException if {@link #answer} was called already
   */
  public UnansweredStub named(String name) {
    StubArguments.name(name);
    requireUnanswered("named(...)");
    draft.rename(name);
    return this;
  }

  /**
   * Wins over more specific stubs of the same scope, for a stub that must answer every request that
   * it matches.
   *
   * @throws IllegalStateException if {@link #answer} was called already
   */
  public UnansweredStub overriding() {
    requireUnanswered("overriding()");
    draft.overriding();
    return this;
  }

  /**
   * Requires all these conditions.
   *
   * @throws IllegalArgumentException if one is null, or is on a variable that the request line does
   *     not have
   * @throws IllegalStateException if {@link #answer} was called already
   */
  @Override
  public UnansweredStub where(Condition... conditions) {
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
   * @throws IllegalStateException if {@link #answer} was called already
   */
  public UnansweredStub check(Condition condition) {
    Refusals.given("check(condition)", condition);
    requireUnanswered("check(...)");
    draft.check(StubCheck.of(condition));
    return this;
  }

  /**
   * Adds a check, like {@link #check(Condition)}; an exception that it throws fails the test.
   *
   * @param assertion inspects the request, and throws if it is wrong
   */
  public UnansweredStub check(Consumer<Received> assertion) {
    Refusals.given("check(assertion)", assertion);
    requireUnanswered("check(...)");
    draft.check(new StubCheck(assertion));
    return this;
  }

  /**
   * Saves the bodies of its requests to a file, like {@link #saveBodyTo(String)}.
   *
   * @throws IllegalArgumentException if the path is null, or its folder does not exist
   * @throws IllegalStateException if {@link #answer} was called already
   */
  public UnansweredStub saveBodyTo(Path path) {
    Refusals.given("saveBodyTo(path)", path);
    return saveBodyTo(path.toString());
  }

  /**
   * Saves the bodies of its requests to a file as they arrive, without holding them in memory; for
   * bodies of any size. For conditions and in the log, these requests have no body. Each request
   * overwrites the file.
   *
   * @param path the path of the file, relative to the working directory
   * @throws IllegalArgumentException if the path is null, or its folder does not exist
   * @throws IllegalStateException if {@link #answer} was called already
   */
  public UnansweredStub saveBodyTo(String path) {
    Refusals.given("saveBodyTo(path)", path);
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
   * @throws IllegalStateException if it was called already, or the scope of the stub has ended
   */
  public Stub answer(Answer first, Answer... more) {
    requireUnanswered("answer(...)");
    List<Answer> answers =
        StubArguments.answers("answer(...) of the stub " + draft.reference(), first, more);
    Stub answered = new Stub(net, net.stubs().finish(draft, answers));
    hasAnswer = true;
    return answered;
  }

  /** Returns its request pattern so far. */
  public RequestPattern pattern() {
    return draft.pattern();
  }

  /** Returns its name and the place of its declaration. */
  public StubReference reference() {
    return draft.reference();
  }

  private void requireUnanswered(String method) {
    if (hasAnswer) {
      throw Refusals.state(
          String.format(
              "The stub %s has its answer already. Fix: call %s before answer(...), which takes all"
                  + " answers: answer(a, b, ...).",
              draft.reference(), method));
    }
  }

  /** Returns its name in quotes, and the place of its declaration. */
  @Override
  public String toString() {
    return draft.reference().toString();
  }
}
