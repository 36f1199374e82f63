// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.DecimalNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.misuse.Refusals;
import java.io.IOException;
import java.util.Map;

/**
 * Reads and writes trees as streams of tokens. A mapper could do it, but loads some three hundred
 * more classes, a quarter of a second in a new JVM, such as that of a test.
 */
final class JsonTrees {

  private static final JsonNodeFactory MAKE = JsonNodeFactory.instance;

  private JsonTrees() {}

  /** Reads the value at the current token. The parser limits its depth. */
  static JsonNode read(JsonParser parser) throws IOException {
    return switch (parser.currentToken()) {
      case START_OBJECT -> object(parser);
      case START_ARRAY -> array(parser);
      case VALUE_STRING -> MAKE.textNode(parser.getText());
      case VALUE_NUMBER_INT ->
          switch (parser.getNumberType()) {
            case INT -> MAKE.numberNode(parser.getIntValue());
            case LONG -> MAKE.numberNode(parser.getLongValue());
            default -> MAKE.numberNode(parser.getBigIntegerValue());
          };
      case VALUE_NUMBER_FLOAT -> DecimalNode.valueOf(parser.getDecimalValue());
      case VALUE_TRUE -> MAKE.booleanNode(true);
      case VALUE_FALSE -> MAKE.booleanNode(false);
      case VALUE_NULL -> MAKE.nullNode();
      default -> throw new IllegalStateException("No value at " + parser.currentToken());
    };
  }

  private static ObjectNode object(JsonParser parser) throws IOException {
    ObjectNode object = MAKE.objectNode();
    while (parser.nextToken() == JsonToken.FIELD_NAME) {
      String name = parser.currentName();
      parser.nextToken();
      object.set(name, read(parser));
    }
    return object;
  }

  private static ArrayNode array(JsonParser parser) throws IOException {
    ArrayNode array = MAKE.arrayNode();
    while (parser.nextToken() != JsonToken.END_ARRAY) {
      array.add(read(parser));
    }
    return array;
  }

  /** Writes a tree as JSON. */
  static void write(JsonNode tree, JsonGenerator generator) throws IOException {
    switch (tree.getNodeType()) {
      case OBJECT -> {
        generator.writeStartObject();
        for (Map.Entry<String, JsonNode> member : tree.properties()) {
          generator.writeFieldName(member.getKey());
          write(member.getValue(), generator);
        }
        generator.writeEndObject();
      }
      case ARRAY -> {
        generator.writeStartArray();
        for (JsonNode element : tree) {
          write(element, generator);
        }
        generator.writeEndArray();
      }
      case STRING -> generator.writeString(tree.textValue());
      case NUMBER -> generator.writeNumber(tree.asText());
      case BOOLEAN -> generator.writeBoolean(tree.booleanValue());
      case NULL -> generator.writeNull();
      default -> throw Refusals.argument(tree.getNodeType() + " is not valid JSON.");
    }
  }
}
