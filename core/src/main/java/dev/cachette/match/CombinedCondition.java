// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Cause;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Two conditions on a value, joined by AND or OR. */
final class CombinedCondition extends ValueCondition {

  private final ValueCondition one;
  private final ValueCondition other;
  private final boolean both;

  CombinedCondition(ValueCondition one, ValueCondition other, boolean both) {
    this.one = one;
    this.other = other;
    this.both = both;
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member(
        both ? "allOf" : "anyOf", StubNodes.all(List.of(one.written(), other.written())));
  }

  @Override
  boolean isQuick() {
    return one.isQuick() && other.isQuick();
  }

  @Override
  boolean holds(Found found) {
    return both ? one.holds(found) && other.holds(found) : one.holds(found) || other.holds(found);
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return one.describe(mask) + (both ? ", and " : ", or ") + other.describe(mask);
  }

  @Override
  Optional<Cause> cause(Found found) {
    return one.holds(found) ? other.cause(found) : one.cause(found);
  }
}
