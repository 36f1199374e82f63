// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.jsonpath.Located;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Replaces values in JSON. */
public final class JsonReplacement {

  private final Set<String> places;
  private final JsonNode value;

  private JsonReplacement(Set<String> places, JsonNode value) {
    this.places = places;
    this.value = value;
  }

  /**
   * Returns a copy with this value at each place that the query selects; empty if it selects
   * nothing.
   */
  public static Optional<JsonNode> of(JsonNode root, JsonQuery query, JsonNode value) {
    Set<String> places =
        query.find(root).stream()
            .filter(found -> !found.node().isMissingNode())
            .map(Located::path)
            .collect(Collectors.toSet());
    return places.isEmpty()
        ? Optional.empty()
        : Optional.of(new JsonReplacement(places, value).copy(Located.root(root)));
  }

  private JsonNode copy(Located place) {
    if (places.contains(place.path())) {
      return value;
    }
    JsonNode node = place.node();
    if (node.isObject()) {
      ObjectNode copy = JsonNodeFactory.instance.objectNode();
      node.fieldNames().forEachRemaining(name -> copy.set(name, copy(place.member(name))));
      return copy;
    }
    if (node.isArray()) {
      ArrayNode copy = JsonNodeFactory.instance.arrayNode();
      for (int at = 0; at < node.size(); at++) {
        copy.add(copy(place.element(at)));
      }
      return copy;
    }
    return node;
  }
}
