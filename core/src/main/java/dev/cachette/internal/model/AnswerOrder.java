// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.function.Predicate;

/**
 * The answers of a stub, and in which order they are given.
 *
 * @param answers one a call, at least one
 * @param onCall the answers to single calls, by number
 * @param then what follows the last answer
 * @param limit the maximum number of calls; empty for no limit
 */
public record AnswerOrder(
    List<Answer> answers, Map<Integer, Answer> onCall, Then then, OptionalInt limit) {

  /** The answer after the last one. */
  public enum Then {
    /** The last one again. */
    LAST_STAYS,
    /** The first one. */
    FIRST_AGAIN,
    /** Nothing: the stub is used up. */
    USED_UP
  }

  /** Copies the answers. */
  public AnswerOrder {
    answers = List.copyOf(answers);
    onCall = Map.copyOf(onCall);
  }

  /** Returns an order in which the last answer stays; repeated answers are there several times. */
  public static AnswerOrder of(List<Answer> answers) {
    return new AnswerOrder(
        answers.stream().flatMap(it -> AnswerInternals.expanded(it).stream()).toList(),
        Map.of(),
        Then.LAST_STAYS,
        OptionalInt.empty());
  }

  AnswerOrder then(Then other) {
    return new AnswerOrder(answers, onCall, other, limit);
  }

  AnswerOrder limit(int calls) {
    return new AnswerOrder(answers, onCall, then, OptionalInt.of(calls));
  }

  AnswerOrder onCall(int number, Answer answer) {
    Map<Integer, Answer> more = new HashMap<>(onCall);
    more.put(number, answer);
    return new AnswerOrder(answers, more, then, limit);
  }

  /** Returns true if there is no answer after this number of calls. */
  public boolean isUsedUpAfter(int calls) {
    return limit.isPresent() && calls >= limit.getAsInt()
        || then == Then.USED_UP && calls >= answers.size();
  }

  /** Returns true if there is a call after which it is used up. */
  public boolean canBeUsedUp() {
    return limit.isPresent() || then == Then.USED_UP;
  }

  /** Returns the place in the list of the answer after this number of calls. */
  public int turnAfter(int calls) {
    return then == Then.FIRST_AGAIN ? calls % answers.size() : Math.min(calls, answers.size() - 1);
  }

  /** Returns true if one of the answers satisfies a predicate. */
  public boolean has(Predicate<Answer> wanted) {
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
}
