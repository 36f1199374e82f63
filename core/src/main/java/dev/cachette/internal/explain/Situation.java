// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.result.StubReference;
import java.util.List;
import java.util.stream.Stream;

/**
 * The stubs and settings in force when an unexpected call arrived.
 *
 * @param stubs all active stubs, inner scope and last declared first; then recorded exchanges
 * @param cassettes the active cassettes for its host, in words
 * @param ended stubs of scopes that have ended
 * @param through what is let through
 * @param toOurself whether the target of the call is an address that Cachette listens on
 * @param madeBy who made the call, as a paragraph; empty if nothing worth saying is known
 */
public record Situation(
    List<Explanation.Stub> stubs,
    List<String> cassettes,
    List<Explanation.Stub> ended,
    List<StubReference> through,
    boolean toOurself,
    String madeBy) {

  /** Nothing in force. */
  public static final Situation NONE =
      new Situation(List.of(), List.of(), List.of(), List.of(), false, "");

  /** Returns a situation with stubs only. */
  public static Situation of(List<Explanation.Stub> stubs) {
    return of(stubs, List.of());
  }

  /** Returns a situation with stubs, and with those of scopes that have ended. */
  public static Situation of(List<Explanation.Stub> stubs, List<Explanation.Stub> ended) {
    return new Situation(stubs, List.of(), ended, List.of(), false, "");
  }

  /** Returns a situation with cassettes, and the exchanges in them. */
  public static Situation recorded(List<String> cassettes, List<Explanation.Stub> exchanges) {
    return new Situation(exchanges, cassettes, List.of(), List.of(), false, "");
  }

  /** Returns a situation in which something is let through. */
  public static Situation through(List<StubReference> through) {
    return new Situation(List.of(), List.of(), List.of(), through, false, "");
  }

  /** Returns what is known of the call. */
  public static Situation of(boolean toOurself, String madeBy) {
    return new Situation(List.of(), List.of(), List.of(), List.of(), toOurself, madeBy);
  }

  /** Returns both; the stubs of the other one are behind these. */
  public Situation and(Situation other) {
    return new Situation(
        both(stubs, other.stubs),
        both(cassettes, other.cassettes),
        both(ended, other.ended),
        both(through, other.through),
        toOurself || other.toOurself,
        madeBy + other.madeBy);
  }

  private static <T> List<T> both(List<T> one, List<T> other) {
    return one.isEmpty() ? other : Stream.concat(one.stream(), other.stream()).toList();
  }

  /** Returns true if there is a stub, not only recorded exchanges. */
  boolean hasStubs() {
    return stubs.stream().anyMatch(stub -> !stub.isRecorded());
  }
}
