package dev.cachette.internal.explain;

import dev.cachette.result.StubReference;
import java.util.List;

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

  /** Creates a situation with stubs only. */
  public static Situation of(List<Explanation.Stub> stubs) {
    return new Situation(stubs, List.of(), List.of(), List.of(), false, "");
  }

  /** Returns true if there is a stub, not only recorded exchanges. */
  boolean hasStubs() {
    return stubs.stream().anyMatch(stub -> !stub.isRecorded());
  }
}
