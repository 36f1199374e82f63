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
 * <p>For every method and origin there is a tree of literal path segments. A pattern stands at the
 * node where its first variable begins, or at the one where its path ends. Not safe to share
 * between threads while it changes.
 *
 * @param <T> what is found by a pattern
 */
public final class PatternIndex<T> {

  private static final String ANY = "";

  private final Comparator<T> order;
  private final Map<Root, Node<T>> roots = new HashMap<>();

  /** The trees: one for each method and origin, where the empty text stands for any. */
  private record Root(String method, String origin) {}

  /** A place in a path: what ends here, what goes on with a variable, and the segments below. */
  private static final class Node<T> {
    private final List<T> whole = new ArrayList<>(0);
    private final List<T> prefix = new ArrayList<>(0);
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
    for (String method : key.methods().isEmpty() ? List.of(ANY) : key.methods()) {
      Node<T> node =
          roots.computeIfAbsent(new Root(method, key.origin().orElse(ANY)), unused -> new Node<>());
      for (String segment : key.segments()) {
        node = node.children.computeIfAbsent(segment, unused -> new Node<>());
      }
      (key.whole() ? node.whole : node.prefix).add(found);
    }
  }

  /** What may fit a request, in order; whether it does is for its pattern to say. */
  public List<T> candidates(Received received) {
    List<T> found = new ArrayList<>();
    String[] segments = received.normalPath().split("/", -1);
    String method = received.request().method();
    String origin = received.request().uri().origin();
    for (String byMethod : List.of(method, ANY)) {
      for (String byOrigin : List.of(origin, ANY)) {
        collect(roots.get(new Root(byMethod, byOrigin)), segments, found);
      }
    }
    if (found.size() > 1) {
      found.sort(order);
    }
    return found;
  }

  private static <T> void collect(@Nullable Node<T> root, String[] segments, List<T> into) {
    @Nullable Node<T> node = root;
    for (int at = 0; node != null && at <= segments.length; at++) {
      into.addAll(node.prefix);
      if (at == segments.length) {
        into.addAll(node.whole);
      } else {
        node = node.children.get(segments[at]);
      }
    }
  }
}
