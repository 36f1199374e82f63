package dev.cachette.internal.yaml;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The way to a value from the root, put into words only where it is told.
 *
 * @param outer what it is a part of; null for the root
 * @param name its name there, if it is a member
 * @param index its number there, from 0, if it is an element
 */
record Trail(@Nullable Trail outer, @Nullable String name, int index) {

  static final Trail ROOT = new Trail(null, null, 0);

  private static final Pattern PLAIN_NAME = Pattern.compile("[A-Za-z_][A-Za-z0-9_-]*");

  Trail member(String member) {
    return new Trail(this, member, 0);
  }

  Trail element(int number) {
    return new Trail(this, null, number);
  }

  /** As messages have it: {@code stubs[0].answer}. */
  @Override
  public String toString() {
    Deque<Trail> steps = new ArrayDeque<>();
    for (Trail at = this; at.outer != null; at = at.outer) {
      steps.push(at);
    }
    StringBuilder path = new StringBuilder();
    for (Trail step : steps) {
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
