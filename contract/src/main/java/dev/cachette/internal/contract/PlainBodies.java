// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.Json;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * Bodies without content encoding; those of JSON without white space, and with their members
 * sorted, since neither means anything, and both may differ from run to run.
 */
public final class PlainBodies {

  private PlainBodies() {}

  static Body of(Headers headers, Body body) {
    if (body.isEmpty()) {
      return body;
    }
    return json(headers, body)
        .map(it -> Body.of(Json.text(sorted(it))))
        .orElseGet(() -> Body.of(Content.of(headers, body).bytes()));
  }

  private static JsonNode sorted(JsonNode value) {
    if (value.isArray()) {
      ArrayNode elements = JsonNodeFactory.instance.arrayNode();
      value.forEach(it -> elements.add(sorted(it)));
      return elements;
    }
    if (!value.isObject()) {
      return value;
    }
    SortedSet<String> names = new TreeSet<>();
    value.fieldNames().forEachRemaining(names::add);
    ObjectNode members = JsonNodeFactory.instance.objectNode();
    names.forEach(name -> members.set(name, sorted(value.get(name))));
    return members;
  }

  /** Returns the value of a body that is JSON by its content type, or looks like it without one. */
  public static Optional<JsonNode> json(Headers headers, Body body) {
    if (body.isEmpty()) {
      return Optional.empty();
    }
    Content content = Content.of(headers, body);
    return BodyFormats.of(content).isJson() ? content.json() : Optional.empty();
  }
}
