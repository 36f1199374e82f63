// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The reference of all keys of stub files, as a page of the guide. */
final class KeyReference {

  private static final Map<String, Keys<?>> SECTIONS = new LinkedHashMap<>();

  static {
    SECTIONS.put("A stub file", FileKeys.ALL);
    SECTIONS.put("A collection", FileKeys.COLLECTION);
    SECTIONS.put(
        "A stub", Keys.all(List.of(StubKeys.FRAME, StubKeys.BEHAVIOR, ContractKeys.OF_STUB)));
    SECTIONS.put("A condition on requests", ConditionKeys.ALL);
    SECTIONS.put("A condition on a value", ValueKeys.ALL);
    SECTIONS.put("A condition on the body", BodyKeys.ALL);
    SECTIONS.put("An answer", AnswerKeys.ALL);
    SECTIONS.put("A contract", ContractKeys.CONTRACT);
    SECTIONS.put("A state of the provider", ContractKeys.STATE);
    SECTIONS.put("A need", ContractKeys.NEED);
  }

  /** The mappings within others, which have no section. */
  private static final Map<String, Keys<?>> WITHIN = new LinkedHashMap<>();

  static {
    WITHIN.put("rateLimit", StubKeys.RATE_LIMIT);
    WITHIN.put("flaky", StubKeys.FLAKY);
    WITHIN.put("basic", ConditionKeys.BASIC);
    WITHIN.put("parts", ConditionKeys.PART);
    WITHIN.put("graphql", ConditionKeys.GRAPHQL);
    WITHIN.put("soap", ConditionKeys.SOAP);
    WITHIN.put("example", ContractKeys.EXAMPLE);
    WITHIN.put("shape", ContractKeys.SHAPE);
    WITHIN.put("cookies", AnswerKeys.COOKIE);
    WITHIN.put("problem", ContentKeys.PROBLEM);
    WITHIN.put("recorded", ContentKeys.RECORDED);
    WITHIN.put("stream", ContentKeys.STREAM_PARTS);
    WITHIN.put("events", ContentKeys.EVENT);
  }

  private KeyReference() {}

  static String page() {
    StringBuilder page = new StringBuilder();
    page.append(
        """
        # Keys of stub files

        Every key that a [stub file](stubs.md) may have, by where it stands. This page and the
        [JSON Schema](../schema/cachette-stubs.schema.json) are made from the list that the reader
        has. "Or several" is a sequence; a plain value is a string, a number or a boolean. A stub
        has the conditions on requests among its own keys.
        """);
    SECTIONS.forEach((title, keys) -> section(title, keys, page));
    return page.toString();
  }

  private static void section(String title, Keys<?> keys, StringBuilder page) {
    page.append("\n## ").append(title).append("\n\n| key | value | |\n|---|---|---|\n");
    for (Key<?> key : keys.all()) {
      row("`" + key.name() + "`", key, page);
      boolean isCookieOfRequest = keys == ConditionKeys.ALL && key.name().equals("cookies");
      Keys<?> within = WITHIN.get(key.name());
      if (within != null && !isCookieOfRequest) {
        for (Key<?> inner : within.all()) {
          row("`" + key.name() + "` › `" + inner.name() + "`", inner, page);
        }
      }
    }
  }

  private static void row(String name, Key<?> key, StringBuilder page) {
    page.append("| ")
        .append(name)
        .append(" | ")
        .append(kind(key.shape().schema()))
        .append(" | ")
        .append(key.help())
        .append(" |\n");
  }

  /** Returns what a value is, in words. */
  private static String kind(ObjectNode schema) {
    JsonNode either = schema.path("anyOf");
    if (!either.isEmpty()) {
      String one = kind((ObjectNode) either.get(0));
      ObjectNode other = (ObjectNode) either.get(1);
      return other.path("items").equals(either.get(0))
          ? one + ", or several"
          : one + " or " + kind(other);
    }
    if (schema.has("$ref")) {
      return link(schema.get("$ref").textValue().replaceAll(".*/", ""));
    }
    if (schema.has("enum")) {
      return allowed(schema.get("enum"));
    }
    if (schema.has("const")) {
      return "`" + schema.get("const") + "`";
    }
    if (schema.path("additionalProperties").isObject()) {
      return "by name: " + kind((ObjectNode) schema.get("additionalProperties"));
    }
    if (schema.path("patternProperties").isObject()) {
      return "by number: " + kind((ObjectNode) schema.get("patternProperties").elements().next());
    }
    return type(schema);
  }

  private static String type(ObjectNode schema) {
    String type = schema.path("type").isArray() ? "" : schema.path("type").asText("any");
    return switch (type) {
      case "" ->
          schema.get("type").get(0).textValue().equals("object")
              ? "a JSON Schema"
              : "a plain value";
      case "any" -> "any value";
      case "boolean" -> "`true` or `false`";
      case "string" -> "a string";
      case "integer", "number" ->
          number(schema, type.equals("integer") ? "a whole number" : "a number");
      case "array" -> "a sequence: " + kind((ObjectNode) schema.get("items")) + ", ...";
      default -> "a mapping";
    };
  }

  private static String number(ObjectNode schema, String kind) {
    String from = schema.has("minimum") ? " from " + schema.get("minimum") : "";
    return kind + from + (schema.has("maximum") ? " to " + schema.get("maximum") : "");
  }

  private static String allowed(JsonNode names) {
    if (names.size() > 5) {
      return "the name of a [fault](faults.md)";
    }
    List<String> all = new ArrayList<>();
    names.forEach(name -> all.add("`" + name.textValue() + "`"));
    return String.join(", ", all);
  }

  private static String link(String definition) {
    return switch (definition) {
      case "stub" -> "a [stub](#a-stub)";
      case "condition" -> "a [condition](#a-condition-on-requests)";
      case "value" -> "a value or [condition](#a-condition-on-a-value)";
      case "body" -> "a string or [condition](#a-condition-on-the-body)";
      case "content" -> "a string, or `body`, `json`, `form`, `xpath` with `namespaces`";
      case "answer" -> "an [answer](#an-answer)";
      case "duration" -> "a duration: `200ms`, `1.5s`, `10m`, `PT1M30S`";
      default -> throw new IllegalArgumentException(definition);
    };
  }
}
