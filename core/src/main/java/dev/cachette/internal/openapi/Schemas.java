package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.match.Difference;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The schemas of a description, each made ready when it is first needed. */
final class Schemas {

  private final boolean older;
  private final Map<String, JsonSchemas> ready = new HashMap<>();

  /**
   * None yet.
   *
   * @param older whether they are those of OpenAPI 3.0
   */
  Schemas(boolean older) {
    this.older = older;
  }

  /**
   * What in a value does not fit a schema.
   *
   * @throws MalformedDescription if that is none
   */
  List<Difference> differences(JsonNode value, Element schema, Direction direction) {
    return schema.isThere() ? of(schema, direction).differences(value) : List.of();
  }

  /** The same for a value that is not a body, which has no name for its root. */
  List<Difference> parameter(JsonNode value, Element schema, Direction direction) {
    return differences(value, schema, direction).stream()
        .map(it -> it.at().equals("$") ? it.at("") : it)
        .toList();
  }

  /** A schema, made ready. */
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
