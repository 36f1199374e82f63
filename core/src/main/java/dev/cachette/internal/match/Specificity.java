// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import java.util.List;

/**
 * How specific a request pattern is; greater is more specific.
 *
 * @param origin 2 for one origin, 1 for a host with a star or variable, 0 for any
 * @param path one rank per path segment, from the left
 * @param method 2 for one method, 1 for several, 0 for any
 * @param conditions the number of query parameters and other conditions
 */
public record Specificity(int origin, List<Integer> path, int method, int conditions)
    implements Comparable<Specificity> {

  /** Returns this with additional conditions. */
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
