package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.StubNodes;
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
  boolean holds(Found found) {
    return found.items().stream()
        .anyMatch(
            item ->
                item.isBoolean()
                    ? item.booleanValue() == wanted
                    : !found.typed() && item.asText().equals(Boolean.toString(wanted)));
  }

  @Override
  Optional<String> remark(JsonNode item, boolean typed) {
    return typed && !item.isBoolean()
        ? Optional.of(JsonComparison.type(item) + ", not a boolean")
        : Optional.empty();
  }

  @Override
  String describe(UnaryOperator<String> mask) {
    return Boolean.toString(wanted);
  }
}
