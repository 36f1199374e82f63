// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.cassette.CassetteInternals.Pair;
import java.util.AbstractList;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * Pairs the exchanges of two recordings. They may be large: only keys are kept, and exchanges are
 * read when a pair is.
 */
final class Pairs extends AbstractList<Pair> {

  private static final int NONE = -1;

  private final List<Exchange> before;
  private final List<Exchange> after;

  /** The partner of each older exchange. */
  private final int[] partners;

  /** The exchanges that are new, in order. */
  private final int[] added;

  private Pairs(List<Exchange> before, List<Exchange> after, Matching matching) {
    this.before = before;
    this.after = after;
    this.partners = new int[before.size()];
    Left left = new Left(after, new Fingerprint(matching));
    for (int at = 0; at < partners.length; at++) {
      partners[at] = left.takeSameRequest(before.get(at));
    }
    for (int at = 0; at < partners.length; at++) {
      if (partners[at] == NONE) {
        partners[at] = left.takeSameLine(before.get(at));
      }
    }
    this.added = left.rest();
  }

  /**
   * Returns the pairs in the order of the older exchanges, then the new ones. Exchanges with the
   * same request are paired first, in order, then those with the same request line.
   */
  static List<Pair> of(List<Exchange> before, List<Exchange> after, Matching matching) {
    return new Pairs(before, after, matching);
  }

  @Override
  public Pair get(int at) {
    if (at >= partners.length) {
      return new Pair(Optional.empty(), Optional.of(after.get(added[at - partners.length])));
    }
    int partner = partners[at];
    return new Pair(
        Optional.of(before.get(at)),
        partner == NONE ? Optional.empty() : Optional.of(after.get(partner)));
  }

  @Override
  public int size() {
    return partners.length + added.length;
  }

  /** The exchanges that have no partner yet, by their keys. */
  private static final class Left {

    private final Fingerprint fingerprint;
    private final Map<String, Deque<Integer>> byRequest = new HashMap<>();
    private final Map<String, Deque<Integer>> byLine = new HashMap<>();
    private final boolean[] taken;

    Left(List<Exchange> exchanges, Fingerprint fingerprint) {
      this.fingerprint = fingerprint;
      this.taken = new boolean[exchanges.size()];
      for (int at = 0; at < taken.length; at++) {
        Exchange exchange = exchanges.get(at);
        String line = line(exchange);
        byLine.computeIfAbsent(line, key -> new ArrayDeque<>()).add(at);
        byRequest.computeIfAbsent(request(exchange, line), key -> new ArrayDeque<>()).add(at);
      }
    }

    private String line(Exchange exchange) {
      return fingerprint.ofLine(exchange.request().method(), exchange.request().uri());
    }

    private String request(Exchange exchange, String line) {
      return line + "\n" + fingerprint.ofRest(exchange.request());
    }

    int takeSameRequest(Exchange old) {
      return take(byRequest.get(request(old, line(old))));
    }

    int takeSameLine(Exchange old) {
      return take(byLine.get(line(old)));
    }

    private int take(@Nullable Deque<Integer> candidates) {
      while (candidates != null && !candidates.isEmpty()) {
        int first = candidates.remove();
        if (!taken[first]) {
          taken[first] = true;
          return first;
        }
      }
      return NONE;
    }

    int[] rest() {
      return IntStream.range(0, taken.length).filter(at -> !taken[at]).toArray();
    }
  }
}
