// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Arrays;
import java.util.Iterator;
import java.util.Optional;

/** Comparison of JSON values (RFC 9535 section 2.3.5.2.2). */
public final class Comparisons {

  private Comparisons() {}

  static boolean equal(Optional<JsonNode> one, Optional<JsonNode> other) {
    return one.isPresent() && other.isPresent()
        ? equal(one.get(), other.get())
        : one.isEmpty() && other.isEmpty();
  }

  /** Returns true if two JSON values are equal: numbers by value, members in any order. */
  public static boolean equal(JsonNode one, JsonNode other) {
    if (one.isNumber() && other.isNumber()) {
      return one.decimalValue().compareTo(other.decimalValue()) == 0;
    }
    if (one.getNodeType() != other.getNodeType() || one.size() != other.size()) {
      return false;
    }
    if (one.isObject()) {
      for (Iterator<String> names = one.fieldNames(); names.hasNext(); ) {
        String name = names.next();
        if (!other.has(name) || !equal(one.get(name), other.get(name))) {
          return false;
        }
      }
      return true;
    }
    if (one.isArray()) {
      for (int at = 0; at < one.size(); at++) {
        if (!equal(one.get(at), other.get(at))) {
          return false;
        }
      }
      return true;
    }
    return one.equals(other);
  }

  static boolean less(Optional<JsonNode> one, Optional<JsonNode> other) {
    if (one.isEmpty() || other.isEmpty()) {
      return false;
    }
    if (one.get().isNumber() && other.get().isNumber()) {
      return one.get().decimalValue().compareTo(other.get().decimalValue()) < 0;
    }
    return one.get().isTextual()
        && other.get().isTextual()
        && compare(one.get().textValue(), other.get().textValue()) < 0;
  }

  /**
   * Compares Unicode scalar values, unlike {@link String#compareTo}, which compares UTF-16 units.
   */
  private static int compare(String one, String other) {
    int[] a = one.codePoints().toArray();
    int[] b = other.codePoints().toArray();
    return Arrays.compare(a, b);
  }
}
