package dev.cachette.answer;

import java.util.Optional;
import java.util.stream.Collectors;

/**
 * One event of a {@code text/event-stream} (WHATWG HTML, Server-sent events).
 *
 * @param name its type; a reader takes none for {@code message}
 * @param data what it says; may have several lines
 * @param id what a reader that comes back names as the last one it saw
 */
public record Event(Optional<String> name, String data, Optional<String> id) {

  /** An event without name and identifier. */
  public static Event of(String data) {
    return new Event(Optional.empty(), data, Optional.empty());
  }

  /**
   * Checks its parts.
   *
   * @throws IllegalArgumentException if one is null, or the name or identifier has a line break
   */
  public Event {
    if (data == null || breaksLine(name) || breaksLine(id)) {
      throw new IllegalArgumentException(
          "An event has some data, and a name and an identifier of one line each.");
    }
  }

  /** This event with a name. */
  public Event named(String other) {
    return new Event(Optional.ofNullable(other), data, id);
  }

  /** This event with an identifier. */
  public Event id(String other) {
    return new Event(name, data, Optional.ofNullable(other));
  }

  /** As it is sent, the blank line behind it included. */
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
