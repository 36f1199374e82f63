// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import dev.cachette.internal.jsonpath.JsonPath;
import java.util.List;
import java.util.Optional;

/** Finds the part of a schema, and of an example, that is for a place in a body. */
final class SchemaLookup {

  private SchemaLookup() {}

  /** Returns the schema of the value at a place; missing if alternatives are on the way. */
  static JsonNode at(JsonNode schema, String path, JsonNode value) {
    JsonNode reached = schema;
    for (String step : JsonPath.parse(path).steps()) {
      JsonNode member = reached.path("properties").get(step);
      if (member != null) {
        reached = member;
      } else if (step.matches("\\d+") && reached.path("prefixItems").has(Integer.parseInt(step))) {
        reached = reached.get("prefixItems").get(Integer.parseInt(step));
      } else if (step.matches("\\d+")) {
        reached = reached.path("items");
      } else {
        return MissingNode.getInstance();
      }
    }
    return reached;
  }

  /** Returns the value of the example for a place: of arrays, an element that has it. */
  static Optional<JsonNode> sample(JsonNode example, String path) {
    return sample(example, JsonPath.parse(path).steps());
  }

  private static Optional<JsonNode> sample(JsonNode example, List<String> steps) {
    if (steps.isEmpty()) {
      return Optional.of(example);
    }
    List<String> rest = steps.subList(1, steps.size());
    if (example.isArray()) {
      for (JsonNode element : example) {
        Optional<JsonNode> found = sample(element, rest);
        if (found.isPresent()) {
          return found;
        }
      }
      return Optional.empty();
    }
    return Optional.ofNullable(example.get(steps.get(0))).flatMap(it -> sample(it, rest));
  }
}
