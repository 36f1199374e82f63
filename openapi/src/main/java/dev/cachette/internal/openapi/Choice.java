// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * A schema with alternatives, selected by the value of a property, the discriminator. A value is
 * then validated by the selected schema, not by all.
 *
 * @param keyword {@code oneOf} or {@code anyOf}; empty if there are no alternatives
 * @param property the discriminator
 * @param branches the schemas, by the values that select them
 * @param others the schema for other values, and without one (OpenAPI 3.2); empty if there is none
 */
record Choice(
    String keyword,
    String property,
    Map<Element, List<String>> branches,
    Optional<Element> others) {

  private static final Choice NONE = new Choice("", "", Map.of(), Optional.empty());

  static Choice of(Element schema) {
    Element discriminator = schema.raw("discriminator");
    String property = discriminator.text("propertyName").orElse("");
    for (String keyword : List.of("oneOf", "anyOf")) {
      List<Element> branches = schema.raw(keyword).elements();
      boolean named = branches.stream().allMatch(it -> it.json().path("$ref").isTextual());
      if (!property.isEmpty() && !branches.isEmpty() && named) {
        Map<Element, List<String>> values = new LinkedHashMap<>();
        branches.forEach(it -> values.put(it, values(it, discriminator.raw("mapping"))));
        String mapped = discriminator.text("defaultMapping").orElse("");
        Optional<Element> others = branches.stream().filter(it -> isNamed(it, mapped)).findFirst();
        return new Choice(keyword, property, values, others);
      }
    }
    return NONE;
  }

  private static boolean isNamed(Element branch, String name) {
    String reference = branch.json().get("$ref").asText();
    return reference.equals(name) || reference.endsWith("/" + name);
  }

  /** Adds the values that are mapped to a schema; otherwise its name. */
  private static List<String> values(Element branch, Element mapping) {
    String reference = branch.json().get("$ref").asText();
    String name = reference.substring(reference.lastIndexOf('/') + 1);
    List<String> values = new ArrayList<>();
    mapping
        .json()
        .properties()
        .forEach(
            it -> {
              String target = it.getValue().asText();
              if (target.equals(reference) || target.equals(name)) {
                values.add(it.getKey());
              }
            });
    return values.isEmpty() ? List.of(name) : values;
  }

  boolean replaces(String name) {
    return name.equals(keyword);
  }

  /** Expresses the choice by the value of the discriminator. */
  void addTo(ObjectNode schema, Function<Element, String> reference) {
    if (branches.isEmpty()) {
      return;
    }
    JsonNodeFactory json = JsonNodeFactory.instance;
    ArrayNode all = schema.withArray("allOf");
    ArrayNode known = json.arrayNode();
    branches.forEach(
        (branch, values) -> {
          ArrayNode own = json.arrayNode();
          values.forEach(own::add);
          known.addAll(own);
          ObjectNode chosen = all.addObject();
          ObjectNode condition = chosen.putObject("if");
          condition.putArray("required").add(property);
          condition.putObject("properties").putObject(property).set("enum", own);
          chosen.putObject("then").put("$ref", reference.apply(branch.followedOnce()));
        });
    if (others.isPresent()) {
      ObjectNode unknown = all.addObject();
      ObjectNode condition = unknown.putObject("if").putObject("not");
      condition.putArray("required").add(property);
      condition.putObject("properties").putObject(property).set("enum", known);
      unknown.putObject("then").put("$ref", reference.apply(others.get().followedOnce()));
      return;
    }
    ObjectNode one = all.addObject();
    one.put("type", "object").putArray("required").add(property);
    one.putObject("properties").putObject(property).set("enum", known);
  }
}
