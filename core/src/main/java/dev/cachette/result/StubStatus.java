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
 */
public record StubStatus(
    StubReference stub,
    String request,
    String scope,
    int answers,
    int beaten,
    Optional<StubReference> beatenBy,
    List<Check> obstacles) {

  /** Copies the list. */
  public StubStatus {
    obstacles = List.copyOf(obstacles);
  }
}
