// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Answer;
import dev.cachette.internal.model.AnswerOrder;
import dev.cachette.result.AnswerUse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Tracks whose turn it is among the answers of a stub. Guarded by the lock of {@link Scopes}. */
final class Turns {

  private int count;

  /** How often each answer was given, by its place in the list. */
  private final int[] given;

  /** The same for answers to single calls, by the number of the call. */
  private final Map<Integer, Integer> givenOnCall = new HashMap<>();

  Turns(AnswerOrder order) {
    this.given = new int[order.answers().size()];
  }

  /** Returns the next answer, or none if the stub is used up, without using it. */
  Optional<Answer> peek(AnswerOrder order) {
    if (order.isUsedUpAfter(count)) {
      return Optional.empty();
    }
    Answer regular = order.answers().get(order.turnAfter(count));
    return Optional.of(order.onCall().getOrDefault(count + 1, regular));
  }

  /** Uses and returns the next answer, or none if the stub is used up. */
  Optional<Answer> next(AnswerOrder order) {
    Optional<Answer> next = peek(order);
    if (next.isPresent()) {
      if (order.onCall().containsKey(count + 1)) {
        givenOnCall.merge(count + 1, 1, Integer::sum);
      } else {
        given[order.turnAfter(count)]++;
      }
      count++;
    }
    return next;
  }

  /** Returns the answers, and how often each was given, whatever {@link #startAgain} forgot. */
  List<AnswerUse> uses(AnswerOrder order) {
    List<AnswerUse> uses = new ArrayList<>();
    for (int at = 0; at < given.length; at++) {
      uses.add(new AnswerUse(order.answers().get(at).toString(), given[at]));
    }
    new TreeMap<>(order.onCall())
        .forEach(
            (call, answer) ->
                uses.add(
                    new AnswerUse(
                        "call " + call + ": " + answer, givenOnCall.getOrDefault(call, 0))));
    return uses;
  }

  /** Returns the number of calls it has answered since the start. */
  int count() {
    return count;
  }

  void startAgain() {
    count = 0;
  }
}
