package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import dev.cachette.calls.StubReference;
import dev.cachette.match.RequestPattern;
import java.util.List;

/** A stub as it is used: a pattern and its answers. */
public final class StubRule implements DeclaredStub {

  private final RequestPattern pattern;
  private final StubReference reference;
  private final AnswersInTurn answers;

  /** A stub that has not answered yet; there is at least one answer. */
  public StubRule(RequestPattern pattern, StubReference reference, List<Answer> answers) {
    this.pattern = pattern;
    this.reference = reference;
    this.answers = new AnswersInTurn(answers);
  }

  @Override
  public RequestPattern pattern() {
    return pattern;
  }

  @Override
  public StubReference reference() {
    return reference;
  }

  AnswersInTurn answers() {
    return answers;
  }
}
