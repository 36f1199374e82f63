// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Difference;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** A condition on a value as a boolean: a JSON boolean, or elsewhere the text true or false. */
final class BooleanCondition extends ValueCondition {

  private final boolean wanted;

  BooleanCondition(boolean wanted) {
    this.wanted = wanted;
  }

  @Override
  Optional<JsonNode> written() {
    return Optional.of(StubNodes.flag(wanted));
  }

  @Override
  boolean isQuick() {
    return true;
  }

  @Override
  boolean holds(Found found) {
    return found.items().stream()
        .anyMatch(
            item ->
                item.isBoolean()
                    ? item.booleanValue() == wanted
                    : !found.typed() && item.asText().equals(Boolean.toString(wanted)));
  }

  @Override
  Optional<Remark> remark(JsonNode item, boolean typed) {
    return typed && !item.isBoolean()
        ? Remark.of(item, "a boolean", Difference.Kind.TYPE)
        : Optional.empty();
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return Boolean.toString(wanted);
  }
}
