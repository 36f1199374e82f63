// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.http.Request;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.function.Predicate;

/** A custom predicate, with its name in explanations. */
record OwnCondition(String name, Predicate<Request> predicate) implements Condition {

  @Override
  public String description() {
    return name;
  }

  @Override
  public boolean holds(Received received) {
    return predicate.test(received.request());
  }

  @Override
  public Check check(Received received) {
    return holds(received)
        ? Check.held("condition", name)
        : Check.missed("condition", 0.5, Difference.of(name, "false"));
  }
}
