// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.index;

import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Tells which of many patterns cover another one, without trying each: only those are tried that
 * are for the same origin and the same form of path.
 *
 * <p>Not safe to share between threads while it changes.
 *
 * @param <T> what is found by a pattern
 */
public final class CoverIndex<T> {

  private record Entry<T>(RequestPattern pattern, T found) {}

  private final Map<String, List<Entry<T>>> bySite = new HashMap<>();

  /** Adds a pattern, and what is to be found by it. */
  public void add(RequestPattern pattern, T found) {
    bySite
        .computeIfAbsent(MatchInternals.site(pattern), unused -> new ArrayList<>(1))
        .add(new Entry<>(pattern, found));
  }

  /**
   * Returns what was added with patterns that cover this one, in the order in which it was added;
   * see {@link MatchInternals#covers}.
   */
  public List<T> covering(RequestPattern pattern) {
    List<T> found = new ArrayList<>();
    for (Entry<T> entry : bySite.getOrDefault(MatchInternals.site(pattern), List.of())) {
      if (MatchInternals.covers(entry.pattern, pattern)) {
        found.add(entry.found);
      }
    }
    return found;
  }
}
