package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import dev.cachette.result.AnswerUse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.function.Predicate;

/** Tracks whose turn it is among the answers of a stub. Guarded by the lock of {@link Scopes}. */
final class Turns {

  /** The answer after the last one. */
  enum Then {
    /** The last one again. */
    LAST_STAYS,
    /** The first one. */
    FIRST_AGAIN,
    /** Nothing: the stub is used up. */
    USED_UP
  }

  private final List<Answer> answers;
  private Map<Integer, Answer> onCall = Map.of();
  private Then then = Then.LAST_STAYS;
  private int limit = Integer.MAX_VALUE;
  private int count;

  /** How often each answer was given, by its place in the list. */
  private final int[] given;

  /** The same for answers to single calls, by the number of the call. */
  private final Map<Integer, Integer> givenOnCall = new HashMap<>();

  Turns(List<Answer> answers) {
    this.answers = List.copyOf(answers);
    this.given = new int[answers.size()];
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

  /** Returns the maximum number of calls; empty for no limit. */
  OptionalInt limit() {
    return limit == Integer.MAX_VALUE ? OptionalInt.empty() : OptionalInt.of(limit);
  }

  boolean isUsedUp() {
    return count >= limit || then == Then.USED_UP && count >= answers.size();
  }

  /** Returns true if there is a call after which it is used up. */
  boolean canBeUsedUp() {
    return limit < Integer.MAX_VALUE || then == Then.USED_UP;
  }

  /** Returns the next answer, or none if the stub is used up, without using it. */
  Optional<Answer> peek() {
    if (isUsedUp()) {
      return Optional.empty();
    }
    return Optional.of(onCall.getOrDefault(count + 1, answers.get(turn())));
  }

  private int turn() {
    return then == Then.FIRST_AGAIN ? count % answers.size() : Math.min(count, answers.size() - 1);
  }

  /** Uses and returns the next answer, or none if the stub is used up. */
  Optional<Answer> next() {
    Optional<Answer> next = peek();
    if (next.isPresent()) {
      if (onCall.containsKey(count + 1)) {
        givenOnCall.merge(count + 1, 1, Integer::sum);
      } else {
        given[turn()]++;
      }
      count++;
    }
    return next;
  }

  /** Returns the answers, and how often each was given, whatever {@link #startAgain} forgot. */
  List<AnswerUse> uses() {
    List<AnswerUse> uses = new ArrayList<>();
    for (int at = 0; at < given.length; at++) {
      uses.add(new AnswerUse(answers.get(at).toString(), given[at]));
    }
    new TreeMap<>(onCall)
        .forEach(
            (call, answer) ->
                uses.add(
                    new AnswerUse(
                        "call " + call + ": " + answer, givenOnCall.getOrDefault(call, 0))));
    return uses;
  }

  /** Returns true if one of its answers satisfies a predicate. */
  boolean has(Predicate<Answer> wanted) {
    // Called for every stub whenever one is added: loops, not streams.
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

  /** Returns the number of calls it has answered since the start. */
  int count() {
    return count;
  }

  void startAgain() {
    count = 0;
  }
}
