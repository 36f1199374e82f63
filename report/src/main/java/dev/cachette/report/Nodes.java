// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;

/** Makes JSON trees of maps and lists, without writing and reading them. */
final class Nodes {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private Nodes() {}

  static ObjectNode of(Map<String, Object> members) {
    ObjectNode node = NODES.objectNode();
    members.forEach((name, value) -> node.set(name, of(value)));
    return node;
  }

  private static JsonNode of(Object value) {
    if (value instanceof Map<?, ?> map) {
      ObjectNode node = NODES.objectNode();
      map.forEach((name, member) -> node.set(String.valueOf(name), of(member)));
      return node;
    }
    if (value instanceof List<?> list) {
      ArrayNode node = NODES.arrayNode(list.size());
      list.forEach(element -> node.add(of(element)));
      return node;
    }
    if (value instanceof Boolean truth) {
      return NODES.booleanNode(truth);
    }
    if (value instanceof Double number) {
      return NODES.numberNode(Numbers.rounded(number));
    }
    if (value instanceof Number number) {
      return NODES.numberNode(number.longValue());
    }
    return NODES.textNode(String.valueOf(value));
  }
}
