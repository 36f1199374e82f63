package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import java.util.List;

/** Several answers, one a call; the last one stays. Guarded by the lock of {@link Scopes}. */
final class AnswersInTurn {

  private final List<Answer> answers;
  private int next;

  AnswersInTurn(List<Answer> answers) {
    this.answers = List.copyOf(answers);
  }

  Answer next() {
    Answer answer = answers.get(next);
    next = Math.min(next + 1, answers.size() - 1);
    return answer;
  }

  void startAgain() {
    next = 0;
  }
}
