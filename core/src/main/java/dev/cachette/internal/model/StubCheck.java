// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.model;

import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.Condition;
import dev.cachette.match.Received;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * A check of every request that a stub answers.
 *
 * @param condition the condition, unless it is user code
 * @param verify throws if the check fails
 */
public record StubCheck(Optional<Condition> condition, Consumer<Received> verify) {

  /** Creates a check from a function. */
  public StubCheck(Consumer<Received> verify) {
    this(Optional.empty(), verify);
  }

  /** Creates a check from a condition. */
  public static StubCheck of(Condition condition) {
    return new StubCheck(
        Optional.of(condition),
        received -> {
          Check check = condition.check(received);
          if (!check.holds()) {
            throw Failed.of(
                "a check fails:\n\n"
                    + CheckText.lines(RequestMask.of(received.request()).checks(List.of(check))));
          }
        });
  }
}
