// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Converts a schema of an API description to JSON Schema 2020-12, with everything that it refers
 * to. Keywords that OpenAPI 3.0 defines differently ({@code nullable}, exclusive bounds) are
 * translated.
 */
final class Bundle {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;
  private static final Set<String> LISTS = Set.of("allOf", "anyOf", "oneOf", "prefixItems");
  private static final Set<String> MAPS =
      Set.of("properties", "patternProperties", "$defs", "definitions", "dependentSchemas");
  private static final Set<String> SINGLE =
      Set.of(
          "items",
          "additionalProperties",
          "not",
          "if",
          "then",
          "else",
          "contains",
          "propertyNames",
          "unevaluatedItems",
          "unevaluatedProperties");

  /** Keywords that do not affect validation, or are handled here. */
  private static final Set<String> DROPPED =
      Set.of(
          "$id",
          "$anchor",
          "$schema",
          "nullable",
          "discriminator",
          "example",
          "examples",
          "default",
          "xml",
          "externalDocs");

  private final boolean older;
  private final Direction direction;
  private final Map<String, String> names = new LinkedHashMap<>();
  private final List<Element> origins = new ArrayList<>();
  private final ObjectNode definitions = JSON.objectNode();

  /**
   * Creates an empty bundle.
   *
   * @param older whether schemas are those of OpenAPI 3.0
   */
  Bundle(boolean older, Direction direction) {
    this.older = older;
    this.direction = direction;
  }

  /** Returns the whole schema. */
  ObjectNode of(Element schema) {
    ObjectNode whole = JSON.objectNode();
    whole.put("$ref", reference(schema));
    whole.set("$defs", definitions);
    return whole;
  }

  /** Returns where a keyword of the whole schema is in the API description. */
  MalformedDescription.Place place(String pointer) {
    String[] steps = pointer.split("/", 4);
    if (steps.length < 3 || !steps[1].equals("$defs") || !steps[2].matches("\\d+")) {
      return origins.get(0).place();
    }
    Element origin = origins.get(Integer.parseInt(steps[2]));
    String below = steps.length < 4 ? "" : "/" + steps[3];
    return new Element(origin.document(), origin.pointer() + below, origin.json()).place();
  }

  private String reference(Element schema) {
    String key = schema.document().label() + "#" + schema.pointer();
    String known = names.get(key);
    if (known == null) {
      known = Integer.toString(origins.size());
      names.put(key, known);
      origins.add(schema);
      definitions.set(known, turned(schema));
    }
    return "#/$defs/" + known;
  }

  private JsonNode turned(Element schema) {
    if (schema.json().isBoolean()) {
      return schema.json();
    }
    if (!schema.json().isObject()) {
      throw schema.malformed("expected a schema, found " + schema.json() + ".");
    }
    if (schema.json().path("$ref").isTextual()) {
      Element target = schema.document().resolve(schema.json().get("$ref").asText(), schema);
      ObjectNode reference = JSON.objectNode();
      if (!older) {
        keywords(schema, reference);
      }
      return reference.put("$ref", reference(target));
    }
    ObjectNode turned = JSON.objectNode();
    keywords(schema, turned);
    if (!older) {
      return turned;
    }
    exclusive(turned, "exclusiveMinimum", "minimum");
    exclusive(turned, "exclusiveMaximum", "maximum");
    return schema.isSet("nullable") ? nullable(turned) : turned;
  }

  private void keywords(Element schema, ObjectNode to) {
    Choice choice = Choice.of(schema);
    schema
        .json()
        .fieldNames()
        .forEachRemaining(
            name -> {
              if (!DROPPED.contains(name)
                  && !name.startsWith("x-")
                  && !name.equals("$ref")
                  && !choice.replaces(name)) {
                to.set(name, keyword(name, schema));
              }
            });
    choice.addTo(to, this::reference);
  }

  private JsonNode keyword(String name, Element schema) {
    Element value = schema.raw(name);
    if (SINGLE.contains(name)) {
      return turned(value);
    }
    if (LISTS.contains(name) && value.json().isArray()) {
      ArrayNode list = JSON.arrayNode();
      value.elements().forEach(each -> list.add(turned(each)));
      return list;
    }
    if (MAPS.contains(name) && value.json().isObject()) {
      ObjectNode map = JSON.objectNode();
      value
          .json()
          .fieldNames()
          .forEachRemaining(member -> map.set(member, turned(value.raw(member))));
      return map;
    }
    return name.equals("required") && value.json().isArray() ? required(schema) : value.json();
  }

  /** Returns the properties that are required in this direction. */
  private ArrayNode required(Element schema) {
    ArrayNode required = JSON.arrayNode();
    Element properties = schema.raw("properties");
    for (Element name : schema.raw("required").elements()) {
      if (!direction.leavesOut(properties.raw(name.json().asText()))) {
        required.add(name.json());
      }
    }
    return required;
  }

  /** In OpenAPI 3.0, an exclusive bound is a boolean next to the bound. */
  private static void exclusive(ObjectNode schema, String exclusive, String bound) {
    JsonNode flag = schema.path(exclusive);
    if (flag.isBoolean()) {
      schema.remove(exclusive);
      if (flag.booleanValue() && schema.has(bound)) {
        schema.set(exclusive, schema.remove(bound));
      }
    }
  }

  private static JsonNode nullable(ObjectNode schema) {
    if (schema.path("enum").isArray()) {
      schema.withArray("enum").addNull();
    }
    if (schema.path("type").isTextual()) {
      schema.set("type", JSON.arrayNode().add(schema.get("type")).add("null"));
      return schema;
    }
    ObjectNode nothing = JSON.objectNode().put("type", "null");
    return JSON.objectNode().set("anyOf", JSON.arrayNode().add(schema).add(nothing));
  }
}
