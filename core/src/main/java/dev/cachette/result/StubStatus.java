// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

import java.util.List;
import java.util.Optional;

/**
 * A stub in force, and its use so far.
 *
 * @param stub its name and place
 * @param request its request line
 * @param scope the test, class or session that its scope is for
 * @param answers how many calls it has answered
 * @param beaten how many calls that it matches were answered by another stub
 * @param beatenBy the last stub that answered one of those
 * @param obstacles why it does not answer now, even a matching call: used up, or not active yet
 * @param coveredBy the stub that always answers instead, for one that is unreachable
 * @param isUnused whether it will be reported as unused
 * @param uses its answers in their order, and how often each was given
 */
public record StubStatus(
    StubReference stub,
    String request,
    String scope,
    int answers,
    int beaten,
    Optional<StubReference> beatenBy,
    List<Check> obstacles,
    Optional<StubReference> coveredBy,
    boolean isUnused,
    List<AnswerUse> uses) {

  /** Copies the lists. */
  public StubStatus {
    obstacles = List.copyOf(obstacles);
    uses = List.copyOf(uses);
  }
}
