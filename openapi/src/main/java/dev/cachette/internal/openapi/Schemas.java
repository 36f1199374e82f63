// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.result.Difference;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The schemas of an API description, each compiled on demand. */
final class Schemas {

  private final boolean older;
  private final Map<String, JsonSchemas> ready = new HashMap<>();

  /**
   * Creates an empty set.
   *
   * @param older whether they are those of OpenAPI 3.0
   */
  Schemas(boolean older) {
    this.older = older;
  }

  /**
   * Returns the violations of a schema.
   *
   * @throws MalformedDescription if the schema is invalid
   */
  List<Difference> differences(JsonNode value, Element schema, Direction direction) {
    return schema.isThere() ? of(schema, direction).differences(value) : List.of();
  }

  /** Returns the violations for a value that is not a body, so its root has no name. */
  List<Difference> parameter(JsonNode value, Element schema, Direction direction) {
    return differences(value, schema, direction).stream()
        .map(it -> it.at().equals("$") ? it.at("") : it)
        .toList();
  }

  /** Returns a compiled schema. */
  synchronized JsonSchemas of(Element schema, Direction direction) {
    String key = direction + schema.document().label() + "#" + schema.pointer();
    JsonSchemas known = ready.get(key);
    if (known == null) {
      Bundle bundle = new Bundle(older, direction);
      try {
        known =
            new JsonSchemas(
                bundle.of(schema), new Formats(), pointer -> "   (" + bundle.place(pointer) + ")");
      } catch (MalformedDescription malformed) {
        throw malformed;
      } catch (IllegalArgumentException malformed) {
        throw schema.malformed(String.valueOf(malformed.getMessage()));
      }
      ready.put(key, known);
    }
    return known;
  }
}
