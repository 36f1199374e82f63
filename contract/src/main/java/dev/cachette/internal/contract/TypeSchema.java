// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import java.math.BigDecimal;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * Derives a JSON Schema (2020-12) from an example, by type: the members of objects are required,
 * the elements of an array have one schema if they are of one type, and null can be anything.
 */
final class TypeSchema {

  private TypeSchema() {}

  /** Returns the schema of an example. */
  static ObjectNode of(JsonNode example) {
    if (example.isObject()) {
      return object(example);
    }
    if (example.isArray()) {
      return array(example);
    }
    if (example.isNull()) {
      // It shows that the consumer copes with null, and nothing of what else there can be.
      return StubNodes.object();
    }
    return StubNodes.member("type", StubNodes.text(scalar(example)));
  }

  /** Returns the type of a scalar; 4.0 is a number, 4 an integer. */
  static String scalar(JsonNode value) {
    if (value.isNumber()) {
      BigDecimal number = value.decimalValue();
      return number.scale() <= 0 ? "integer" : "number";
    }
    return value.isBoolean() ? "boolean" : "string";
  }

  private static ObjectNode object(JsonNode example) {
    ObjectNode schema = StubNodes.member("type", StubNodes.text("object"));
    if (!example.isEmpty()) {
      ArrayNode required = schema.putArray("required");
      ObjectNode properties = schema.putObject("properties");
      SortedSet<String> names = new TreeSet<>();
      example.fieldNames().forEachRemaining(names::add);
      for (String name : names) {
        required.add(name);
        properties.set(name, of(example.get(name)));
      }
    }
    return schema;
  }

  private static ObjectNode array(JsonNode example) {
    ObjectNode schema = StubNodes.member("type", StubNodes.text("array"));
    if (example.isEmpty()) {
      return schema;
    }
    if (isOfOneType(example)) {
      ObjectNode items = of(example.get(0));
      for (JsonNode element : example) {
        items = either(items, of(element));
      }
      schema.set("items", items);
      return schema;
    }
    ArrayNode places = schema.putArray("prefixItems");
    example.forEach(element -> places.add(of(element)));
    schema.put("minItems", example.size());
    schema.put("items", false);
    return schema;
  }

  private static boolean isOfOneType(JsonNode array) {
    SortedSet<String> types = new TreeSet<>();
    for (JsonNode element : array) {
      types.add(
          element.isNumber()
              ? "number"
              : element.isContainerNode() ? element.getNodeType().name() : typeOf(element));
    }
    types.remove("null");
    return types.size() <= 1;
  }

  private static String typeOf(JsonNode scalar) {
    return scalar.isNull() ? "null" : scalar(scalar);
  }

  /** Returns the schema of what is one or the other. */
  private static ObjectNode either(ObjectNode one, ObjectNode other) {
    if (one.equals(other)) {
      return one;
    }
    if (one.isEmpty() || other.isEmpty()) {
      // One of them was null.
      return nullable(one.isEmpty() ? other : one);
    }
    SortedSet<String> types = new TreeSet<>();
    types(one, types);
    types(other, types);
    if (types.contains("number")) {
      types.remove("integer");
    }
    ObjectNode schema = StubNodes.object();
    if (types.size() == 1) {
      schema.put("type", types.first());
    } else {
      schema.set("type", StubNodes.texts(types));
    }
    SortedSet<String> names = new TreeSet<>();
    one.path("properties").fieldNames().forEachRemaining(names::add);
    other.path("properties").fieldNames().forEachRemaining(names::add);
    ObjectNode properties = StubNodes.object();
    for (String name : names) {
      JsonNode left = one.path("properties").get(name);
      JsonNode right = other.path("properties").get(name);
      properties.set(
          name,
          left == null || right == null
              ? left == null ? right : left
              : either((ObjectNode) left, (ObjectNode) right));
    }
    if (!properties.isEmpty()) {
      required(one, other, schema);
      schema.set("properties", properties);
    }
    if (one.has("items") || other.has("items")) {
      elements(one, other, schema);
    }
    return schema;
  }

  private static void required(ObjectNode one, ObjectNode other, ObjectNode schema) {
    boolean bothAreObjects = one.has("properties") && other.has("properties");
    ArrayNode both = schema.arrayNode();
    one.path("required")
        .forEach(
            name -> {
              for (JsonNode there : other.path("required")) {
                if (there.equals(name)) {
                  both.add(name);
                }
              }
            });
    if (!both.isEmpty() && bothAreObjects) {
      schema.set("required", both);
    }
  }

  private static void elements(ObjectNode one, ObjectNode other, ObjectNode schema) {
    JsonNode left = one.get("items");
    JsonNode right = other.get("items");
    if (left instanceof ObjectNode first && right instanceof ObjectNode second) {
      schema.set("items", either(first, second));
    } else if (left instanceof ObjectNode only && right == null) {
      schema.set("items", only);
    } else if (right instanceof ObjectNode only && left == null) {
      schema.set("items", only);
    }
  }

  private static void types(ObjectNode schema, SortedSet<String> into) {
    JsonNode type = schema.path("type");
    if (type.isArray()) {
      type.forEach(it -> into.add(it.asText()));
    } else if (type.isTextual()) {
      into.add(type.asText());
    }
  }

  /** Returns a schema that also allows null. */
  static ObjectNode nullable(ObjectNode schema) {
    SortedSet<String> types = new TreeSet<>();
    types(schema, types);
    ObjectNode wider = schema.deepCopy();
    for (String values : new String[] {"enum", "const"}) {
      if (wider.has(values)) {
        ObjectNode alternatives = StubNodes.object();
        alternatives
            .putArray("anyOf")
            .add(schema)
            .add(StubNodes.member("type", StubNodes.text("null")));
        return alternatives;
      }
    }
    if (types.isEmpty()) {
      return wider;
    }
    types.add("null");
    // Other types first, as one says it.
    ArrayNode all = wider.arrayNode();
    types.stream().filter(it -> !it.equals("null")).forEach(all::add);
    wider.set("type", all.add("null"));
    return wider;
  }
}
