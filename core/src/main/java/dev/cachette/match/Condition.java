package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Optional;

/**
 * One thing that a request must fulfil. Made by {@link Conditions} and {@link Bodies}, or of one's
 * own.
 *
 * <p>A condition is asked for many requests, by several threads, and must not block.
 */
public interface Condition {

  /** What is asked for, as messages say it: {@code header authorization: starts with "Bearer "}. */
  String description();

  /** Whether and how it fares with a request, explained. */
  Check check(Received received);

  /** Whether it holds; the same as {@code check(received).holds()}, without the reasons. */
  default boolean holds(Received received) {
    return check(received).holds();
  }

  /** How a stub file writes it; empty where a function of one's own is in it, as by default. */
  default Optional<JsonNode> written() {
    return Optional.empty();
  }

  /** This condition or another one. */
  default Condition or(Condition other) {
    return new AnyOf(this, Arguments.given("or(condition)", other));
  }

  /** The contrary of this condition. */
  default Condition negated() {
    return new Negated(this);
  }
}
