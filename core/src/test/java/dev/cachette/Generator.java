// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;

/** Random values, the same for the same seed. */
public final class Generator {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final String[] NAMES = {
    "vessel", "berth", "day", "note", "a b", "ü", "x-y", "", "$", "'", "lines", "0", "~/"
  };
  private static final String[] TEXTS = {
    "", "Kittiwake", "\"", "\\", "a\nb", "<&>", "ü\ud83d\udea2", " ", "4.2", "null", "{", "%41+"
  };

  private final Random random;

  public Generator(long seed) {
    this.random = new Random(seed);
  }

  public int below(int limit) {
    return random.nextInt(limit);
  }

  @SafeVarargs
  public final <T> T one(T... choices) {
    return choices[below(choices.length)];
  }

  public String name() {
    return one(NAMES);
  }

  public String text() {
    return one(TEXTS) + (below(3) == 0 ? one(TEXTS) : "");
  }

  /** Returns letters and digits. */
  public String word(int length) {
    StringBuilder word = new StringBuilder();
    for (int at = 0; at < length; at++) {
      word.append("abcdefghijkmnopqrstuvwxyz23456789".charAt(below(33)));
    }
    return word.toString();
  }

  /** Returns any JSON value, nested this deep at most. */
  public JsonNode json(int depth) {
    return switch (below(depth == 0 ? 4 : 7)) {
      case 0 -> NODES.textNode(text());
      case 1 -> NODES.numberNode(new BigDecimal(one("0", "1", "-7", "4.2", "1e3", "100", "0.5")));
      case 2 -> NODES.booleanNode(below(2) == 0);
      case 3 -> NODES.nullNode();
      case 4 -> array(depth);
      default -> object(depth);
    };
  }

  /** Returns an object with at least one member. */
  public ObjectNode object(int depth) {
    ObjectNode object = NODES.objectNode();
    for (int size = below(4); size >= 0; size--) {
      object.set(name(), json(depth - 1));
    }
    return object;
  }

  private ArrayNode array(int depth) {
    ArrayNode array = NODES.arrayNode();
    for (int size = below(4); size > 0; size--) {
      array.add(json(depth - 1));
    }
    return array;
  }

  /** Returns the same JSON in other words: order of members, white space, escapes, numbers. */
  public String otherwise(JsonNode node) {
    String space = one("", " ", "\n\t");
    if (node.isObject()) {
      List<String> names = new ArrayList<>();
      node.fieldNames().forEachRemaining(names::add);
      Collections.shuffle(names, random);
      List<String> members = new ArrayList<>();
      for (String name : names) {
        members.add(string(name) + space + ":" + space + otherwise(node.get(name)));
      }
      return "{" + space + String.join("," + space, members) + space + "}";
    }
    if (node.isArray()) {
      List<String> elements = new ArrayList<>();
      node.forEach(element -> elements.add(otherwise(element)));
      return "[" + space + String.join(space + ",", elements) + "]";
    }
    if (node.isNumber()) {
      BigDecimal number = node.decimalValue();
      return one(number.toString(), number.toPlainString(), number.setScale(9) + "", number + "E0")
          .replace("E+3E0", "E3");
    }
    return node.isTextual() ? string(node.textValue()) : node.toString();
  }

  private String string(String text) {
    StringBuilder out = new StringBuilder("\"");
    for (char c : text.toCharArray()) {
      if (c < ' ' || c == '"' || c == '\\' || below(9) == 0) {
        out.append(String.format("\\u%04x", (int) c));
      } else {
        out.append(c);
      }
    }
    return out.append('"').toString();
  }
}
