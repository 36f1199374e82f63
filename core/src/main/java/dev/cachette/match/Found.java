// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * The values that a request has at one place: a header, a parameter, a JSON path.
 *
 * @param items the values, in order; none if the place does not exist
 * @param typed whether strings and numbers differ, as in JSON but not in headers
 * @param mask masks what is secret in a value before it is shown
 */
record Found(List<JsonNode> items, boolean typed, UnaryOperator<String> mask) {

  static Found texts(List<String> texts, UnaryOperator<String> mask) {
    List<JsonNode> items = new ArrayList<>(texts.size());
    for (String text : texts) {
      items.add(TextNode.valueOf(text));
    }
    return new Found(items, false, mask);
  }

  static Found texts(List<String> texts) {
    return texts(texts, UnaryOperator.identity());
  }

  static Found json(List<JsonNode> nodes, UnaryOperator<String> mask) {
    return new Found(List.copyOf(nodes), true, mask);
  }

  boolean isEmpty() {
    return items.isEmpty();
  }

  /** Returns the values as they are shown. */
  String shown() {
    return items.isEmpty()
        ? Difference.MISSING
        : items.stream().limit(8).map(this::shown).collect(Collectors.joining(", "))
            + (items.size() > 8 ? ", ... (" + items.size() + " values)" : "");
  }

  private String shown(JsonNode item) {
    if (item.isTextual()) {
      return Quoting.quote(mask.apply(item.textValue()));
    }
    String text = item.isContainerNode() ? Masking.text(item.toString()) : item.toString();
    boolean secret = item.isNumber() && !mask.apply(text).equals(text);
    return secret ? Masking.MASK : Quoting.visible(text);
  }
}
