package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Generates a value for a schema: its example, else its default, its only value, or a value within
 * its bounds. The same schema gives the same value. The caller checks whether it is valid: patterns
 * are not supported.
 */
final class Samples {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  /** Deeper than this, optional parts are left out. */
  private static final int DEEP = 4;

  private static final Map<String, String> TEXTS =
      Map.ofEntries(
          Map.entry("date", "2031-04-02"),
          Map.entry("date-time", "2031-04-02T04:10:00Z"),
          Map.entry("time", "04:10:00Z"),
          Map.entry("duration", "PT6H"),
          Map.entry("uuid", "6f1c2b1e-5f0a-4c7e-9d3b-2a8e4c6d0b12"),
          Map.entry("email", "desk@harbour.example"),
          Map.entry("idn-email", "desk@harbour.example"),
          Map.entry("uri", "https://harbour.example/berths/12"),
          Map.entry("uri-reference", "/berths/12"),
          Map.entry("iri", "https://harbour.example/berths/12"),
          Map.entry("hostname", "harbour.example"),
          Map.entry("ipv4", "192.0.2.12"),
          Map.entry("ipv6", "2001:db8::12"),
          Map.entry("byte", "dGV4dA=="));

  private final Direction direction;
  private final Set<JsonNode> within = new HashSet<>();

  private Samples(Direction direction) {
    this.direction = direction;
  }

  static JsonNode of(Element schema, Direction direction) {
    return new Samples(direction).sample(schema, 0);
  }

  private JsonNode sample(Element schema, int depth) {
    Element there = schema.followed();
    Optional<JsonNode> given = given(there).or(() -> given(schema));
    if (given.isPresent()) {
      return given.get();
    }
    if (depth > 2 * DEEP || there.json().isObject() && !within.add(there.json())) {
      return JSON.nullNode();
    }
    try {
      return made(there, depth);
    } finally {
      within.remove(there.json());
    }
  }

  private static Optional<JsonNode> given(Element schema) {
    JsonNode json = schema.json();
    for (String keyword : List.of("example", "const", "default")) {
      if (json.has(keyword)) {
        return Optional.of(json.get(keyword));
      }
    }
    for (String keyword : List.of("examples", "enum")) {
      if (json.path(keyword).isArray() && !json.get(keyword).isEmpty()) {
        return Optional.of(json.get(keyword).get(0));
      }
    }
    return Optional.empty();
  }

  private JsonNode made(Element schema, int depth) {
    for (String keyword : List.of("oneOf", "anyOf")) {
      List<Element> branches = schema.raw(keyword).elements();
      if (!branches.isEmpty()) {
        Element branch = branches.get(0);
        return merged(sample(branch, depth), withDiscriminator(schema, branch, depth));
      }
    }
    List<Element> parts = schema.raw("allOf").elements();
    if (!parts.isEmpty()) {
      JsonNode merged = JSON.nullNode();
      for (Element part : parts) {
        merged = merged(merged, sample(part, depth));
      }
      return schema.json().has("properties") ? merged(merged, object(schema, depth)) : merged;
    }
    return switch (type(schema)) {
      case "object" -> object(schema, depth);
      case "array" -> array(schema, depth);
      case "integer", "number" -> number(schema);
      case "boolean" -> JSON.booleanNode(true);
      case "null" -> JSON.nullNode();
      default -> text(schema);
    };
  }

  /** Adds the members of the schema itself, and the value that selects this branch. */
  private JsonNode withDiscriminator(Element schema, Element branch, int depth) {
    ObjectNode own = JSON.objectNode();
    if (schema.json().has("properties")) {
      own = object(schema, depth);
    }
    List<String> values = Choice.of(schema).branches().getOrDefault(branch, List.of());
    if (!values.isEmpty()) {
      own.put(Choice.of(schema).property(), values.get(0));
    }
    return own;
  }

  private static JsonNode merged(JsonNode first, JsonNode second) {
    if (!first.isObject() || !second.isObject()) {
      return first.isNull() ? second : first;
    }
    ObjectNode merged = first.deepCopy();
    merged.setAll((ObjectNode) second);
    return merged;
  }

  private static String type(Element schema) {
    JsonNode type = schema.json().path("type");
    if (type.isArray()) {
      for (JsonNode each : type) {
        if (!each.asText().equals("null")) {
          return each.asText();
        }
      }
    }
    if (type.isTextual()) {
      return type.asText();
    }
    boolean object = schema.json().has("properties") || schema.json().has("additionalProperties");
    return object ? "object" : schema.json().has("items") ? "array" : "string";
  }

  private ObjectNode object(Element schema, int depth) {
    ObjectNode object = JSON.objectNode();
    Set<String> required = new HashSet<>();
    schema.json().path("required").forEach(name -> required.add(name.asText()));
    Element properties = schema.raw("properties");
    properties
        .json()
        .fieldNames()
        .forEachRemaining(
            name -> {
              Element property = properties.raw(name);
              boolean wanted = required.contains(name) || depth < DEEP && !isOpen(property);
              if (wanted && !direction.leavesOut(property)) {
                object.set(name, sample(property, depth + 1));
              }
            });
    return object;
  }

  /** Returns true if a value of the same schema is being generated further out. */
  private boolean isOpen(Element schema) {
    return within.contains(schema.followed().json());
  }

  private ArrayNode array(Element schema, int depth) {
    ArrayNode array = JSON.arrayNode();
    Element items = schema.raw("items");
    int least = schema.json().path("minItems").asInt(0);
    boolean endless = items.isThere() && isOpen(items);
    int count = endless ? least : Math.max(1, least);
    for (int at = 0; at < count; at++) {
      array.add(items.isThere() ? sample(items, depth + 1) : JSON.textNode("text"));
    }
    return array;
  }

  private static JsonNode number(Element schema) {
    JsonNode json = schema.json();
    boolean whole = json.path("type").asText().equals("integer");
    BigDecimal step = json.path("multipleOf").decimalValue();
    boolean stepped = step.signum() > 0;
    BigDecimal unit = stepped ? step : whole ? BigDecimal.ONE : new BigDecimal("0.5");
    BigDecimal value = stepped ? step : BigDecimal.ONE;
    boolean flagged =
        json.path("exclusiveMinimum").isBoolean() && json.path("exclusiveMinimum").booleanValue();
    if (json.path("exclusiveMinimum").isNumber() || flagged) {
      BigDecimal bound = json.path(flagged ? "minimum" : "exclusiveMinimum").decimalValue();
      value = stepped ? bound.divide(step, 0, RoundingMode.FLOOR).multiply(step) : bound;
      value = value.add(unit);
    } else if (json.has("minimum")) {
      value = json.get("minimum").decimalValue();
    } else if (json.has("maximum") && json.get("maximum").decimalValue().compareTo(value) < 0) {
      value = json.get("maximum").decimalValue();
    }
    if (stepped) {
      value = value.divide(step, 0, RoundingMode.CEILING).multiply(step);
    }
    return JSON.numberNode(whole ? value.setScale(0, RoundingMode.CEILING) : value);
  }

  private static JsonNode text(Element schema) {
    JsonNode json = schema.json();
    String format = json.path("format").asText();
    String text = TEXTS.getOrDefault(format, "text");
    if (TEXTS.containsKey(format)) {
      return JSON.textNode(text);
    }
    int least = json.path("minLength").asInt(0);
    int most = json.path("maxLength").asInt(Integer.MAX_VALUE);
    while (text.length() < least) {
      text += "x";
    }
    return JSON.textNode(text.length() > most ? text.substring(0, most) : text);
  }
}
