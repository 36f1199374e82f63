// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.FieldTypes;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.Json;
import java.util.List;
import java.util.Optional;

/** A body as a value that can be validated by a schema. */
final class BodyValue {

  private BodyValue() {}

  /** Returns the value, or why it cannot be read; empty if schemas do not apply to the body. */
  static Optional<Reading<JsonNode>> of(Content content, Element schema) {
    return content.encodingProblem().isPresent()
        ? Optional.of(Reading.failed(content.encodingProblem().get()))
        : BodyFormats.named(content.headers().first("content-type"))
            .value(content, new BySchema(schema));
  }

  private record BySchema(Element schema) implements FieldTypes {

    @Override
    public JsonNode value(String name, List<String> texts) {
      Element property = SchemaTypes.property(schema, name);
      if (!SchemaTypes.of(property).contains("array")) {
        return value(texts.get(0), property);
      }
      Element items = property.followed().get("items");
      ArrayNode array = JsonNodeFactory.instance.arrayNode();
      texts.forEach(text -> array.add(value(text, items)));
      return array;
    }

    private static JsonNode value(String text, Element type) {
      return SchemaTypes.of(type).contains("object") && Json.isValid(text)
          ? Json.tree(text)
          : SchemaTypes.value(text, type);
    }

    @Override
    public boolean isJson(String name) {
      return SchemaTypes.of(SchemaTypes.property(schema, name)).contains("object");
    }

    @Override
    public boolean isString() {
      return SchemaTypes.of(schema).contains("string");
    }
  }
}
