package dev.cachette.internal.match;

import java.util.List;

/**
 * How narrow a request line is; the greater one is the more specific.
 *
 * @param namesOrigin whether it is meant for one origin
 * @param ranks one a path segment, from the left
 * @param parameters how many query parameters it asks for
 */
public record Specificity(boolean namesOrigin, List<Integer> ranks, int parameters)
    implements Comparable<Specificity> {

  @Override
  public int compareTo(Specificity other) {
    if (namesOrigin != other.namesOrigin) {
      return namesOrigin ? 1 : -1;
    }
    for (int at = 0; at < Math.min(ranks.size(), other.ranks.size()); at++) {
      if (!ranks.get(at).equals(other.ranks.get(at))) {
        return ranks.get(at).compareTo(other.ranks.get(at));
      }
    }
    if (ranks.size() != other.ranks.size()) {
      return Integer.compare(ranks.size(), other.ranks.size());
    }
    return Integer.compare(parameters, other.parameters);
  }
}
