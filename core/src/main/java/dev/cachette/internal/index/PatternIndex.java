// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.index;

import dev.cachette.internal.match.IndexKey;
import dev.cachette.internal.match.ParsedRequest;
import dev.cachette.internal.match.RequestKey;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Finds, among many patterns, the few that a request may match, by method, origin and path, without
 * trying the others.
 *
 * <p>Patterns without path variables are found by one look-up. The others are in a tree of path
 * segments, one for each method and origin; a pattern is stored at the node where its first
 * variable begins. Not thread-safe while it is modified.
 *
 * @param <T> the values that are found by patterns
 */
public final class PatternIndex<T> {

  private static final String ANY = "";

  private final Comparator<T> order;

  /**
   * By method, origin and path in one key. With thousands of patterns, the cost of a look-up is the
   * number of objects touched for the first time; so single entries are stored without a list.
   */
  private final Map<String, T> literal = new HashMap<>();

  /** Further patterns with the same key. */
  private final Map<String, List<T>> moreLiteral = new HashMap<>();

  /** True if every pattern has one method, one origin, and no variable in its path. */
  private boolean onlyExact = true;

  /** True if there is a pattern for any method, and one for any or several origins. */
  private boolean anyMethod;

  private boolean anyOrigin;

  /** By method and origin in one key. */
  private final Map<String, Node<T>> roots = new HashMap<>();

  /**
   * A node of the path tree: patterns that continue with a variable here, and the segments below.
   */
  private static final class Node<T> {
    private final List<T> found = new ArrayList<>(1);
    private final Map<String, Node<T>> children = new HashMap<>(0);
  }

  /**
   * Creates an empty index.
   *
   * @param order sorts the results
   */
  public PatternIndex(Comparator<T> order) {
    this.order = order;
  }

  /** Adds a value under a pattern. */
  public void add(RequestPattern pattern, T found) {
    IndexKey key = MatchInternals.indexKey(pattern);
    if (key.exact().isPresent()) {
      // The same string instance as the pattern compares with, so that only one is loaded into the
      // CPU cache.
      addLiteral(key.exact().get(), found);
      return;
    }
    onlyExact = false;
    anyMethod |= key.methods().isEmpty();
    anyOrigin |= key.origin().isEmpty();
    String origin = key.origin().orElse(ANY);
    for (String method : key.methods().isEmpty() ? List.of(ANY) : key.methods()) {
      if (key.whole()) {
        addLiteral(RequestKey.of(method, origin, String.join("/", key.segments())), found);
      } else {
        Node<T> node =
            roots.computeIfAbsent(RequestKey.of(method, origin, ""), unused -> new Node<>());
        for (String segment : key.segments()) {
          node = node.children.computeIfAbsent(segment, unused -> new Node<>());
        }
        node.found.add(found);
      }
    }
  }

  private void addLiteral(String key, T found) {
    if (literal.putIfAbsent(key, found) != null) {
      moreLiteral.computeIfAbsent(key, unused -> new ArrayList<>()).add(found);
    }
  }

  private void collectLiteral(String key, List<T> into) {
    T first = literal.get(key);
    if (first != null) {
      into.add(first);
      into.addAll(moreLiteral.getOrDefault(key, List.of()));
    }
  }

  /** Returns the values whose patterns may match a request, in order; their patterns decide. */
  public List<T> candidates(ParsedRequest received) {
    List<T> found = new ArrayList<>(4);
    String path = received.normalPath();
    collectLiteral(received.key(), found);
    if (onlyExact) {
      return sorted(found);
    }
    String method = received.request().method();
    String origin = received.origin();
    collect(method, origin, path, found);
    if (anyOrigin) {
      collectAll(method, ANY, path, found);
    }
    if (anyMethod) {
      collectAll(ANY, origin, path, found);
      collectAll(ANY, ANY, path, found);
    }
    return sorted(found);
  }

  private void collectAll(String method, String origin, String path, List<T> into) {
    collectLiteral(RequestKey.of(method, origin, path), into);
    collect(method, origin, path, into);
  }

  private List<T> sorted(List<T> found) {
    if (found.size() > 1) {
      found.sort(order);
    }
    return found;
  }

  private void collect(String method, String origin, String path, List<T> into) {
    if (roots.isEmpty()) {
      return;
    }
    @Nullable Node<T> node = roots.get(RequestKey.of(method, origin, ""));
    for (int start = 0; node != null; ) {
      into.addAll(node.found);
      int slash = path.indexOf('/', start);
      int end = slash < 0 ? path.length() : slash;
      node = start > end ? null : node.children.get(path.substring(start, end));
      start = end + 1;
    }
  }
}
