// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Finds what no consumer uses of an operation: itself, a response, a member of a response. */
final class UnusedParts {

  private static final int DEEPEST = 8;

  private final Operation operation;
  private final List<NeededResponse> uses;
  private final List<StubReference> unused = new ArrayList<>();

  private UnusedParts(Operation operation, List<NeededResponse> uses) {
    this.operation = operation;
    this.uses = uses;
  }

  /** Returns the parts, each in words and with its place. */
  static List<StubReference> of(Operation operation, List<NeededResponse> uses) {
    UnusedParts parts = new UnusedParts(operation, uses);
    parts.find();
    return parts.unused;
  }

  private void find() {
    if (uses.isEmpty()) {
      add(operation.title(), operation.at());
      return;
    }
    Map<String, List<NeededResponse>> byResponse = new LinkedHashMap<>();
    operation.responses().members().keySet().forEach(it -> byResponse.put(it, new ArrayList<>()));
    for (NeededResponse use : uses) {
      operation
          .response(use.status())
          .flatMap(used -> name(used))
          .ifPresent(it -> byResponse.get(it).add(use));
    }
    byResponse.forEach(
        (status, needed) -> {
          Element response = operation.responses().get(status);
          if (needed.isEmpty()) {
            add(operation.title() + ", response " + status, response);
          } else {
            members(status, response, needed);
          }
        });
  }

  private Optional<String> name(Element response) {
    return operation.responses().members().entrySet().stream()
        .filter(it -> it.getValue().equals(response))
        .map(Map.Entry::getKey)
        .findFirst();
  }

  private void members(String status, Element response, List<NeededResponse> needed) {
    for (Element media : response.get("content").members().values()) {
      List<JsonNode> shapes =
          needed.stream().flatMap(it -> it.shape().stream()).map(JsonNode.class::cast).toList();
      if (!shapes.isEmpty()) {
        members(
            operation.title() + ", response " + status + ", ", "$", media.raw("schema"), shapes, 0);
      }
    }
  }

  private void members(
      String before, String path, Element schema, List<JsonNode> shapes, int depth) {
    if (depth > DEEPEST || !schema.isThere()) {
      return;
    }
    Element items = SchemaParts.items(schema);
    List<JsonNode> ofItems =
        shapes.stream().map(it -> it.path("items")).filter(JsonNode::isObject).toList();
    if (items.isThere() && !ofItems.isEmpty()) {
      members(before, path + "[*]", items, ofItems, depth + 1);
    }
    for (String name : SchemaParts.members(schema)) {
      Element property = SchemaTypes.property(schema, name);
      List<JsonNode> inner =
          shapes.stream()
              .map(it -> it.path("properties").path(name))
              .filter(it -> !it.isMissingNode())
              .toList();
      if (inner.isEmpty()) {
        add(before + path + "." + name, property);
      } else {
        members(before, path + "." + name, property, inner, depth + 1);
      }
    }
  }

  private void add(String what, Element at) {
    unused.add(new StubReference(what, at.place().toString()));
  }
}
