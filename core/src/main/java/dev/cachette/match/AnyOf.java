// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** A condition that holds if one of two conditions holds. */
record AnyOf(Condition one, Condition other) implements Condition, StubForm {

  @Override
  public Optional<JsonNode> written() {
    return StubNodes.member("anyOf", StubNodes.all(List.of(StubForm.of(one), StubForm.of(other))));
  }

  @Override
  public String description() {
    return one.description() + ", or " + other.description();
  }

  @Override
  public boolean holds(Received received) {
    return one.holds(received) || other.holds(received);
  }

  @Override
  public Check check(Received received) {
    Check first = one.check(received);
    Check second = other.check(received);
    String name =
        first.condition().equals(second.condition())
            ? first.condition()
            : first.condition() + " or " + second.condition();
    if (first.holds() || second.holds()) {
      return Check.held(name, (first.holds() ? first : second).expected());
    }
    List<Difference> both = new ArrayList<>(Placing.of(first));
    both.addAll(Placing.of(second));
    return Check.missed(
        name,
        Math.max(first.nearness(), second.nearness()),
        first.expected() + ", or " + second.expected(),
        both);
  }
}
