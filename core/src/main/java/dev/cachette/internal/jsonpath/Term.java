// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.IntNode;
import java.util.List;
import java.util.Optional;

/** An operand of a comparison or function: a value, or nothing. */
sealed interface Term {

  Optional<JsonNode> value(JsonNode current, JsonNode root);

  /** A literal. */
  record Literal(JsonNode node) implements Term {
    @Override
    public Optional<JsonNode> value(JsonNode current, JsonNode root) {
      return Optional.of(node);
    }
  }

  /** A query from the root ({@code $}) or from the current node ({@code @}). */
  record Query(boolean fromRoot, List<Segment> segments) implements Term {

    List<Located> nodes(JsonNode current, JsonNode root) {
      return Segment.apply(segments, Located.root(fromRoot ? root : current), root);
    }

    boolean isSingular() {
      return segments.stream().allMatch(Segment::isSingular);
    }

    /** Returns the value of the only node. */
    @Override
    public Optional<JsonNode> value(JsonNode current, JsonNode root) {
      List<Located> nodes = nodes(current, root);
      return nodes.size() == 1 ? Optional.of(nodes.get(0).node()) : Optional.empty();
    }
  }

  /** {@code value(query)}: the value of the only node; the query may be able to select several. */
  record SingleValue(Query query) implements Term {
    @Override
    public Optional<JsonNode> value(JsonNode current, JsonNode root) {
      return query.value(current, root);
    }
  }

  /** {@code length(value)}: characters of a string, elements of an array, members of an object. */
  record Length(Term argument) implements Term {
    @Override
    public Optional<JsonNode> value(JsonNode current, JsonNode root) {
      return argument.value(current, root).flatMap(Length::of);
    }

    private static Optional<JsonNode> of(JsonNode node) {
      if (node.isTextual()) {
        String text = node.textValue();
        return Optional.of(IntNode.valueOf(text.codePointCount(0, text.length())));
      }
      return node.isContainerNode() ? Optional.of(IntNode.valueOf(node.size())) : Optional.empty();
    }
  }

  /** {@code count(query)}: the number of nodes. */
  record Count(Query query) implements Term {
    @Override
    public Optional<JsonNode> value(JsonNode current, JsonNode root) {
      return Optional.of(IntNode.valueOf(query.nodes(current, root).size()));
    }
  }
}
