// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Loosens or tightens the schema at one place. */
final class Need {

  /** Formats by which strings are recognised, the first that matches. */
  private static final Map<String, Pattern> RECOGNISED = new LinkedHashMap<>();

  static {
    RECOGNISED.put("date", Pattern.compile("\\d{4}-\\d\\d-\\d\\d"));
    RECOGNISED.put(
        "date-time",
        Pattern.compile(
            "\\d{4}-\\d\\d-\\d\\d[Tt]\\d\\d:\\d\\d:\\d\\d(\\.\\d+)?([Zz]|[-+]\\d\\d:\\d\\d)"));
    RECOGNISED.put("uuid", Pattern.compile("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}"));
    RECOGNISED.put("uri", Pattern.compile("[a-z][a-z0-9+.-]*://\\S+"));
  }

  private Need() {}

  /** Applies a need: the name of a flag, or a mapping. */
  static void apply(JsonNode need, SchemaPlace place) {
    if (need.has("is")) {
      place.replace(exact(need.get("is"), need));
    }
    if (need.has("oneOf")) {
      place.replace(StubNodes.object().set("enum", need.get("oneOf")));
    }
    if (!need.has("is")) {
      loosenArray(need, place);
    }
    if (Needs.is(need, "formats")) {
      recognise(place);
    }
    if (need.has("format")) {
      place.schema().put("format", need.get("format").asText());
    }
    if (need.has("pattern")) {
      place.schema().put("pattern", "^(?:" + need.get("pattern").asText() + ")$");
    }
    if (Needs.is(need, "atLeastOne")) {
      place.schema().put(least(place.example()), 1);
    }
    if (Needs.is(need, "nullable")) {
      place.replace(TypeSchema.nullable(place.schema()));
    }
    if (Needs.is(need, "optional")) {
      place.optional();
    }
  }

  private static String least(JsonNode example) {
    return example.isArray() ? "minItems" : example.isObject() ? "minProperties" : "minLength";
  }

  /** Returns the schema of an exact value: of an array, maybe in any order or number. */
  private static ObjectNode exact(JsonNode value, JsonNode need) {
    boolean anyOrder = Needs.is(need, "anyOrder");
    boolean anyLength = Needs.is(need, "anyLength");
    if (!value.isArray() || !anyOrder && !anyLength) {
      return StubNodes.member("const", value);
    }
    ObjectNode schema = StubNodes.member("type", StubNodes.text("array"));
    schema.set("items", StubNodes.member("enum", value));
    if (!anyLength) {
      schema.put("minItems", value.size()).put("maxItems", value.size());
      ArrayNode each = schema.putArray("allOf");
      value.forEach(
          element -> each.add(StubNodes.member("contains", StubNodes.member("const", element))));
    }
    return schema;
  }

  private static void loosenArray(JsonNode need, SchemaPlace place) {
    boolean anyOrder = Needs.is(need, "anyOrder");
    boolean anyLength = Needs.is(need, "anyLength");
    JsonNode places = place.schema().path("prefixItems");
    if (places.isMissingNode() || !anyOrder && !anyLength) {
      return;
    }
    ObjectNode schema = StubNodes.member("type", StubNodes.text("array"));
    if (anyOrder) {
      schema.set("items", StubNodes.member("anyOf", distinct(places)));
      if (!anyLength) {
        schema.put("minItems", places.size()).put("maxItems", places.size());
      }
    } else {
      schema.set("prefixItems", places);
    }
    place.replace(schema);
  }

  private static ArrayNode distinct(JsonNode schemas) {
    ArrayNode all = StubNodes.object().arrayNode();
    for (JsonNode schema : schemas) {
      boolean there = false;
      for (JsonNode other : all) {
        there |= other.equals(schema);
      }
      if (!there) {
        all.add(schema);
      }
    }
    return all;
  }

  /** Recognises the formats of the strings of the example, here and below. */
  private static void recognise(SchemaPlace place) {
    JsonNode example = place.example();
    ObjectNode schema = place.schema();
    if (example.isTextual()) {
      format(example.textValue()).ifPresent(it -> schema.put("format", it));
    } else if (example.isObject()) {
      JsonNode properties = schema.path("properties");
      example.properties().stream()
          .filter(it -> properties.has(it.getKey()))
          .forEach(it -> recognise(place.below(properties, it.getKey(), it.getValue())));
    } else if (example.isArray() && schema.has("prefixItems")) {
      for (int at = 0; at < example.size(); at++) {
        recognise(place.below(schema.get("prefixItems"), Integer.toString(at), example.get(at)));
      }
    } else if (example.isArray() && !example.isEmpty()) {
      recognise(place.below(schema, "items", example.get(0)));
    }
  }

  private static Optional<String> format(String text) {
    return RECOGNISED.entrySet().stream()
        .filter(it -> it.getValue().matcher(text).matches())
        .map(Map.Entry::getKey)
        .findFirst();
  }
}
