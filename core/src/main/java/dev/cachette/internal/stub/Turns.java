package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Predicate;

/** Whose turn it is among the answers of a stub. Guarded by the lock of {@link Scopes}. */
final class Turns {

  /** What comes after the last answer. */
  enum Then {
    /** The last one again. */
    LAST_STAYS,
    /** The first one. */
    FIRST_AGAIN,
    /** Nothing: the stub is spent. */
    SPENT
  }

  private final List<Answer> answers;
  private Map<Integer, Answer> onCall = Map.of();
  private Then then = Then.LAST_STAYS;
  private int limit = Integer.MAX_VALUE;
  private int count;

  Turns(List<Answer> answers) {
    this.answers = List.copyOf(answers);
  }

  void then(Then what) {
    then = what;
  }

  void limit(int calls) {
    limit = calls;
  }

  void onCall(int number, Answer answer) {
    Map<Integer, Answer> more = new HashMap<>(onCall);
    more.put(number, answer);
    onCall = more;
  }

  List<Answer> answers() {
    return answers;
  }

  Map<Integer, Answer> onCall() {
    return onCall;
  }

  Then then() {
    return then;
  }

  /** How many calls it answers; empty for any number. */
  OptionalInt limit() {
    return limit == Integer.MAX_VALUE ? OptionalInt.empty() : OptionalInt.of(limit);
  }

  boolean isSpent() {
    return count >= limit || then == Then.SPENT && count >= answers.size();
  }

  /** Whether there comes a call that it does not answer any more. */
  boolean canBeSpent() {
    return limit < Integer.MAX_VALUE || then == Then.SPENT;
  }

  /** The next answer, or none if the stub is spent; its turn stays. */
  Optional<Answer> peek() {
    if (isSpent()) {
      return Optional.empty();
    }
    int turn =
        then == Then.FIRST_AGAIN ? count % answers.size() : Math.min(count, answers.size() - 1);
    return Optional.of(onCall.getOrDefault(count + 1, answers.get(turn)));
  }

  /** The next answer, whose turn is over then; or none if the stub is spent. */
  Optional<Answer> next() {
    Optional<Answer> next = peek();
    if (next.isPresent()) {
      count++;
    }
    return next;
  }

  /** Whether one of its answers fits. */
  boolean has(Predicate<Answer> wanted) {
    // Asked of every stub whenever one is added: loops, not streams.
    for (Answer answer : answers) {
      if (wanted.test(answer)) {
        return true;
      }
    }
    for (Answer answer : onCall.values()) {
      if (wanted.test(answer)) {
        return true;
      }
    }
    return false;
  }

  /** How many calls it has answered since it began. */
  int count() {
    return count;
  }

  void startAgain() {
    count = 0;
  }
}
