package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.calls.Calls;
import dev.cachette.calls.StubReference;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.stub.StubRule;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A request pattern and its answers. Begun with {@link Cachette#stub(String)}, in force from {@link
 * #answer} on, until its scope ends.
 *
 * <p>Declare a stub on one thread; once it has its answer, any thread may read it.
 */
public final class Stub {

  private final Cachette net;
  private final DraftStub draft;
  private volatile @Nullable StubReference reference;

  Stub(Cachette net, DraftStub draft) {
    this.net = net;
    this.draft = draft;
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
   * Gives the stub its answers, and puts it into force. Several are given in turn, one a call; the
   * last one stays.
   *
   * @throws IllegalArgumentException if an answer is null
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
              "Answer %d of %d for the stub %s is null. Mend: make one with Answers, such as "
                  + "status(204).",
              missing + 1, answers.size(), draft.reference()));
    }
    StubReference finished = draft.reference();
    net.finish(draft, new StubRule(draft.pattern(), finished, answers));
    reference = finished;
    return this;
  }

  /** The calls that this stub has answered, in its scope. */
  public Calls calls() {
    // By identity: two stubs may well have the same name and stand on the same line.
    return net.calls()
        .matching(
            "the stub " + draft.reference(),
            call -> call.stub().filter(by -> by == reference).isPresent());
  }

  private void requireUnanswered(String method) {
    if (reference != null) {
      throw new IllegalStateException(
          String.format(
              "The stub %s has its answer already, so %s comes too late. "
                  + "Mend: give all answers in one answer(a, b, ...), and all else before it.",
              reference, method));
    }
  }

  /** Its name in quotes, and where it was declared. */
  @Override
  public String toString() {
    return draft.reference().toString();
  }
}
