// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.internal.misuse.Refusals;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * One event of a {@code text/event-stream} (WHATWG HTML, Server-sent events).
 *
 * @param name its type; without one, readers assume {@code message}
 * @param data its data; may have several lines
 * @param id the identifier that a reconnecting reader sends as {@code Last-Event-ID}
 */
public record Event(Optional<String> name, String data, Optional<String> id) {

  /** Returns an event without name and identifier. */
  public static Event of(String data) {
    return new Event(Optional.empty(), data, Optional.empty());
  }

  /**
   * Validates the parts.
   *
   * @throws IllegalArgumentException if one is null, or if the name or identifier has a line break
   */
  public Event {
    if (data == null || breaksLine(name) || breaksLine(id)) {
      throw Refusals.argument(
          "An event needs data, and its name and identifier must be one line each.");
    }
  }

  /** Returns this event with a name. */
  public Event named(String other) {
    return new Event(Optional.ofNullable(other), data, id);
  }

  /** Returns this event with an identifier. */
  public Event id(String other) {
    return new Event(name, data, Optional.ofNullable(other));
  }

  /** Returns the event as it is sent, including the empty line at its end. */
  public String text() {
    String lines = data.lines().map(line -> "data: " + line + "\n").collect(Collectors.joining());
    return name.map(value -> "event: " + value + "\n").orElse("")
        + id.map(value -> "id: " + value + "\n").orElse("")
        + (lines.isEmpty() ? "data: \n" : lines)
        + "\n";
  }

  private static boolean breaksLine(Optional<String> value) {
    return value == null || value.filter(text -> text.matches("(?s).*[\r\n].*")).isPresent();
  }
}
