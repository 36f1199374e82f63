// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.misuse.Refusals;
import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * A state that a provider must be in for a clause: "a berth is free", with its parameters.
 * Immutable.
 *
 * @param name the state in words
 * @param parameters its parameters, sorted by name
 */
public record GivenState(String name, Map<String, JsonNode> parameters)
    implements Comparable<GivenState> {

  /** Copies the parameters. */
  public GivenState {
    parameters = Collections.unmodifiableMap(new TreeMap<>(parameters));
  }

  /**
   * Returns a parameter as text: a string without its quotes, other values as JSON.
   *
   * @throws IllegalArgumentException if there is no such parameter; the message lists those there
   *     are
   */
  public String text(String parameter) {
    JsonNode value = json(parameter);
    return value.isTextual() ? value.textValue() : value.toString();
  }

  /**
   * Returns a parameter.
   *
   * @throws IllegalArgumentException if there is no such parameter; the message lists those there
   *     are
   */
  public JsonNode json(String parameter) {
    JsonNode value = parameters.get(parameter);
    if (value == null) {
      throw Refusals.argument(
          String.format(
              "The state \"%s\" has no parameter \"%s\". It has: %s.",
              name,
              parameter,
              parameters.isEmpty() ? "none" : String.join(", ", parameters.keySet())));
    }
    return value;
  }

  /** Compares names, then parameters. */
  @Override
  public int compareTo(GivenState other) {
    int byName = name.compareTo(other.name);
    return byName != 0 ? byName : parameters.toString().compareTo(other.parameters.toString());
  }

  /** Returns the name, and the parameters in parentheses: {@code a berth is free (berth: "B")}. */
  @Override
  public String toString() {
    if (parameters.isEmpty()) {
      return name;
    }
    StringBuilder text = new StringBuilder(name).append(" (");
    parameters.forEach(
        (key, value) ->
            text.append(text.charAt(text.length() - 1) == '(' ? "" : ", ")
                .append(key)
                .append(": ")
                .append(value));
    return text.append(')').toString();
  }
}
