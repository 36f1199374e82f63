// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Optional;

/** A condition that holds if another one does not. */
record Negated(Condition condition) implements Condition, StubForm {

  @Override
  public Optional<JsonNode> written() {
    return StubNodes.member("not", StubForm.of(condition));
  }

  @Override
  public String description() {
    return "not " + condition.description();
  }

  @Override
  public boolean holds(Received received) {
    return !condition.holds(received);
  }

  @Override
  public Check check(Received received) {
    Check check = condition.check(received);
    String expected = "not " + check.expected();
    return check.holds()
        ? Check.missed(check.condition(), 0.5, Difference.of(expected, check.expected()))
        : Check.held(check.condition(), expected);
  }

  @Override
  public Condition negated() {
    return condition;
  }
}
