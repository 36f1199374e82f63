package dev.cachette.match;

import dev.cachette.internal.match.IndexKey;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Finds, among many patterns, the few that a request may fit, by method, origin and path, without
 * trying the others.
 *
 * <p>A pattern without variables in its path is found by one look-up. For the others there is, for
 * every method and origin, a tree of path segments; a pattern stands at the node where its first
 * variable begins. Not safe to share between threads while it changes.
 *
 * @param <T> what is found by a pattern
 */
public final class PatternIndex<T> {

  private static final String ANY = "";

  private final Comparator<T> order;

  /**
   * By method, origin and path in one text. Where there are thousands, what it costs to choose is
   * how many objects are looked at for the first time; so there is no list for one alone.
   */
  private final Map<String, T> literal = new HashMap<>();

  /** Those that have the same text as one before. */
  private final Map<String, List<T>> moreLiteral = new HashMap<>();

  /** Whether every pattern has one method, one origin, and no variable in its path. */
  private boolean onlyExact = true;

  /** Whether there is one for any method, and one for any origin or for several. */
  private boolean anyMethod;

  private boolean anyOrigin;

  /** By method and origin in one text. */
  private final Map<String, Node<T>> roots = new HashMap<>();

  /** A place in a path: what goes on with a variable here, and the segments below. */
  private static final class Node<T> {
    private final List<T> found = new ArrayList<>(1);
    private final Map<String, Node<T>> children = new HashMap<>(0);
  }

  /**
   * An empty index.
   *
   * @param order sorts what is found
   */
  public PatternIndex(Comparator<T> order) {
    this.order = order;
  }

  /** Adds a pattern, and what is to be found by it. */
  public void add(RequestPattern pattern, T found) {
    IndexKey key = pattern.indexKey();
    if (key.exact().isPresent()) {
      // The same text as the pattern compares with, so that only one is brought into the cache.
      addLiteral(key.exact().get(), found);
      return;
    }
    onlyExact = false;
    anyMethod |= key.methods().isEmpty();
    anyOrigin |= key.origin().isEmpty();
    String origin = key.origin().orElse(ANY);
    for (String method : key.methods().isEmpty() ? List.of(ANY) : key.methods()) {
      if (key.whole()) {
        addLiteral(Received.key(method, origin, String.join("/", key.segments())), found);
      } else {
        Node<T> node =
            roots.computeIfAbsent(Received.key(method, origin, ""), unused -> new Node<>());
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

  /** What may fit a request, in order; whether it does is for its pattern to say. */
  public List<T> candidates(Received received) {
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
    collectLiteral(Received.key(method, origin, path), into);
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
    @Nullable Node<T> node = roots.get(Received.key(method, origin, ""));
    for (int start = 0; node != null; ) {
      into.addAll(node.found);
      int slash = path.indexOf('/', start);
      int end = slash < 0 ? path.length() : slash;
      node = start > end ? null : node.children.get(path.substring(start, end));
      start = end + 1;
    }
  }
}
