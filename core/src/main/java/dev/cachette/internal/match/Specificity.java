package dev.cachette.internal.match;

import java.util.List;

/**
 * How narrow a request pattern is; the greater one is the more specific.
 *
 * @param origin 2 for one origin, 1 for a host with a star or variable, 0 for any
 * @param path one rank a path segment, from the left
 * @param method 2 for one method, 1 for several, 0 for any
 * @param conditions how many parameters and other conditions it asks for
 */
public record Specificity(int origin, List<Integer> path, int method, int conditions)
    implements Comparable<Specificity> {

  /** As this one, with so many conditions more. */
  public Specificity and(int more) {
    return new Specificity(origin, path, method, conditions + more);
  }

  @Override
  public int compareTo(Specificity other) {
    if (origin != other.origin) {
      return Integer.compare(origin, other.origin);
    }
    for (int at = 0; at < Math.min(path.size(), other.path.size()); at++) {
      if (!path.get(at).equals(other.path.get(at))) {
        return path.get(at).compareTo(other.path.get(at));
      }
    }
    if (path.size() != other.path.size()) {
      return Integer.compare(path.size(), other.path.size());
    }
    if (method != other.method) {
      return Integer.compare(method, other.method);
    }
    return Integer.compare(conditions, other.conditions);
  }
}
