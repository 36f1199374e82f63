// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.yaml;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The path of a value from the root, rendered only when needed.
 *
 * @param outer the path of its parent; null for the root
 * @param name its name, if it is a member
 * @param index its index, from 0, if it is an element
 */
record NodePath(@Nullable NodePath outer, @Nullable String name, int index) {

  static final NodePath ROOT = new NodePath(null, null, 0);

  private static final Pattern PLAIN_NAME = Pattern.compile("[A-Za-z_][A-Za-z0-9_-]*");

  NodePath member(String member) {
    return new NodePath(this, member, 0);
  }

  NodePath element(int number) {
    return new NodePath(this, null, number);
  }

  /** Returns the path in messages: {@code stubs[0].answer}. */
  @Override
  public String toString() {
    Deque<NodePath> steps = new ArrayDeque<>();
    for (NodePath at = this; at.outer != null; at = at.outer) {
      steps.push(at);
    }
    StringBuilder path = new StringBuilder();
    for (NodePath step : steps) {
      if (step.name == null) {
        path.append('[').append(step.index).append(']');
      } else if (PLAIN_NAME.matcher(step.name).matches()) {
        path.append(path.length() == 0 ? "" : ".").append(step.name);
      } else {
        path.append("[\"").append(step.name).append("\"]");
      }
    }
    return path.toString();
  }
}
