// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.limit.LimitedRegex;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Generates a value for a schema: its example, else its default, its only value, or a value within
 * its bounds. The same schema gives the same value. The caller checks whether it is valid:
 * conditions such as {@code not} and {@code if} are not considered.
 */
final class Samples {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  /** Deeper than this, optional parts are left out. */
  private static final int DEEP = 4;

  /** More elements are not generated for the sake of other bounds. */
  private static final int MOST_ELEMENTS = 1_000;

  private final Direction direction;
  private final Set<JsonNode> within = new HashSet<>();

  /** Elements of an array without duplicates differ by this number. */
  private int variation;

  private Samples(Direction direction) {
    this.direction = direction;
  }

  static JsonNode of(Element schema, Direction direction) {
    return new Samples(direction).sample(schema, 0);
  }

  private JsonNode sample(Element schema, int depth) {
    Element there = schema.followed();
    Optional<JsonNode> given = given(there, variation).or(() -> given(schema, variation));
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

  private static Optional<JsonNode> given(Element schema, int variation) {
    JsonNode json = schema.json();
    for (String keyword : List.of("example", "const", "default")) {
      boolean varies = variation > 0 && !keyword.equals("const");
      if (json.has(keyword) && !varies) {
        return Optional.of(json.get(keyword));
      }
    }
    for (String keyword : List.of("examples", "enum")) {
      if (json.path(keyword).isArray() && !json.get(keyword).isEmpty()) {
        return Optional.of(json.get(keyword).get(variation % json.get(keyword).size()));
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
      return ofAll(schema, parts, depth);
    }
    return switch (type(schema)) {
      case "object" -> object(schema, depth);
      case "array" -> array(schema, depth);
      case "integer", "number" -> number(schema);
      case "boolean" -> JSON.booleanNode(variation % 2 == 0);
      case "null" -> JSON.nullNode();
      default -> JSON.textNode(SampleText.of(schema.json(), variation));
    };
  }

  private JsonNode ofAll(Element schema, List<Element> parts, int depth) {
    JsonNode merged = JSON.nullNode();
    for (Element part : parts) {
      merged = merged(merged, sample(part, depth));
    }
    if (merged.isObject()) {
      return schema.json().has("properties") ? merged(merged, object(schema, depth)) : merged;
    }
    // Each part has some of the bounds of one value.
    ObjectNode bounds = JSON.objectNode();
    for (Element part : parts) {
      if (part.followed().json() instanceof ObjectNode own) {
        bounds.setAll(own);
      }
    }
    if (schema.json() instanceof ObjectNode own) {
      bounds.setAll(own);
    }
    bounds.remove("allOf");
    Element whole = new Element(schema.document(), schema.pointer(), bounds);
    return given(whole, variation).orElseGet(() -> made(whole, depth));
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
    Set<String> required = new LinkedHashSet<>();
    schema.json().path("required").forEach(name -> required.add(name.asText()));
    int most = schema.json().path("maxProperties").asInt(Integer.MAX_VALUE);
    Element properties = schema.raw("properties");
    properties
        .json()
        .fieldNames()
        .forEachRemaining(
            name -> {
              Element property = properties.raw(name);
              boolean fits = object.size() + missing(required, object) < most;
              boolean wanted = required.contains(name) || depth < DEEP && fits && !isOpen(property);
              if (wanted && !direction.leavesOut(property)) {
                object.set(name, sample(property, depth + 1));
              }
            });
    for (String name : required) {
      boolean leftOut = direction.leavesOut(properties.raw(name));
      if (!object.has(name) && !leftOut) {
        object.set(name, other(schema, name, depth));
      }
    }
    for (int at = 0; object.size() < least(schema, "minProperties"); at++) {
      String name = otherName(schema, at);
      if (!object.has(name)) {
        object.set(name, other(schema, name, depth));
      } else if (at > MOST_ELEMENTS) {
        return object;
      }
    }
    return object;
  }

  private static long missing(Set<String> required, ObjectNode object) {
    return required.stream().filter(name -> !object.has(name)).count();
  }

  private static int least(Element schema, String keyword) {
    return Math.min(MOST_ELEMENTS, schema.json().path(keyword).asInt(0));
  }

  /** Returns a name that is not among the properties. */
  private static String otherName(Element schema, int number) {
    Iterator<String> patterns = schema.json().path("patternProperties").fieldNames();
    JsonNode names = schema.raw("propertyNames").followed().json();
    if (names.isObject()) {
      return SampleText.of(names, number);
    }
    return patterns.hasNext()
        ? SampleText.of(JSON.objectNode().put("pattern", patterns.next()), number)
        : "name" + (number + 1);
  }

  /** Returns the value of a property that is not described by name. */
  private JsonNode other(Element schema, String name, int depth) {
    Element patterns = schema.raw("patternProperties");
    for (Map.Entry<String, JsonNode> pattern : patterns.json().properties()) {
      if (LimitedRegex.find(Pattern.compile(pattern.getKey()), name)) {
        return sample(patterns.raw(pattern.getKey()), depth + 1);
      }
    }
    Element others = schema.raw("additionalProperties");
    return others.json().isObject() ? sample(others, depth + 1) : JSON.textNode("text");
  }

  /** Returns true if a value of the same schema is being generated further out. */
  private boolean isOpen(Element schema) {
    return within.contains(schema.followed().json());
  }

  private ArrayNode array(Element schema, int depth) {
    ArrayNode array = JSON.arrayNode();
    List<Element> first = schema.raw("prefixItems").elements();
    Element items = schema.raw("items");
    boolean endless = items.isThere() && isOpen(items);
    boolean none = items.json().isBoolean() && !items.json().booleanValue();
    int wanted = Math.max(least(schema, "minItems"), least(schema, "minContains"));
    if (first.isEmpty() && !endless && !none) {
      wanted = Math.max(1, wanted);
    }
    int most = schema.json().path("maxItems").asInt(Integer.MAX_VALUE);
    first.stream().limit(most).forEach(each -> array.add(sample(each, depth + 1)));
    Element contained = schema.raw("contains");
    boolean unique = schema.json().path("uniqueItems").asBoolean();
    int outer = variation;
    for (int at = 0; array.size() < Math.min(wanted, most); at++) {
      variation = unique ? at : outer;
      Element element = contained.isThere() ? contained : items;
      JsonNode value =
          element.json().isObject() ? sample(element, depth + 1) : JSON.textNode("text" + at);
      if (!unique || !contains(array, value) || at > MOST_ELEMENTS) {
        array.add(value);
      }
    }
    variation = outer;
    return array;
  }

  private static boolean contains(ArrayNode array, JsonNode value) {
    for (JsonNode each : array) {
      if (each.equals(value)) {
        return true;
      }
    }
    return false;
  }

  private JsonNode number(Element schema) {
    JsonNode json = schema.json();
    boolean whole = type(schema).equals("integer");
    BigDecimal given = json.path("multipleOf").decimalValue();
    BigDecimal step = given.signum() > 0 ? given : whole ? BigDecimal.ONE : null;
    Bound low = Bound.of(json, "minimum", "exclusiveMinimum");
    Bound high = Bound.of(json, "maximum", "exclusiveMaximum");
    BigDecimal value = BigDecimal.ONE;
    if (low != null && !low.admits(value, 1)) {
      value = low.value();
    } else if (high != null && !high.admits(value, -1)) {
      value = high.value();
    }
    if (step == null) {
      return JSON.numberNode(between(value, low, high).add(BigDecimal.valueOf(variation)));
    }
    RoundingMode towards =
        high != null && value.equals(high.value()) ? RoundingMode.FLOOR : RoundingMode.CEILING;
    value = value.divide(step, 0, towards).multiply(step);
    if (low != null && !low.admits(value, 1)) {
      value = value.add(step);
    } else if (high != null && !high.admits(value, -1)) {
      value = value.subtract(step);
    }
    value = value.add(step.multiply(BigDecimal.valueOf(variation)));
    boolean isWhole = value.stripTrailingZeros().scale() <= 0;
    return JSON.numberNode(isWhole ? value.setScale(0, RoundingMode.UNNECESSARY) : value);
  }

  /** Any number between two bounds, or beyond one that it must not be. */
  private static BigDecimal between(BigDecimal value, @Nullable Bound low, @Nullable Bound high) {
    boolean fits =
        (low == null || low.admits(value, 1)) && (high == null || high.admits(value, -1));
    if (fits) {
      return value;
    }
    if (low != null && high != null) {
      return low.value().add(high.value()).divide(BigDecimal.valueOf(2));
    }
    return low != null ? value.add(new BigDecimal("0.5")) : value.subtract(new BigDecimal("0.5"));
  }

  /** A bound of a number; in OpenAPI 3.0, a flag says that it is exclusive. */
  private record Bound(BigDecimal value, boolean exclusive) {

    static @Nullable Bound of(JsonNode schema, String inclusive, String exclusive) {
      JsonNode strict = schema.path(exclusive);
      JsonNode bound = schema.path(inclusive);
      if (strict.isNumber()
          && (!bound.isNumber() || isStricter(strict, bound, inclusive.equals("minimum")))) {
        return new Bound(strict.decimalValue(), true);
      }
      return bound.isNumber() ? new Bound(bound.decimalValue(), strict.asBoolean(false)) : null;
    }

    private static boolean isStricter(JsonNode strict, JsonNode bound, boolean isLow) {
      int order = strict.decimalValue().compareTo(bound.decimalValue());
      return isLow ? order >= 0 : order <= 0;
    }

    /** Returns true for a value on the right side: 1 above it, -1 below it. */
    boolean admits(BigDecimal number, int side) {
      int order = number.compareTo(value) * side;
      return order > 0 || order == 0 && !exclusive;
    }
  }
}
