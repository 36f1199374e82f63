package dev.cachette.cassette;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * What has changed from one recording to another of the same requests. Its text is a table, one
 * exchange after the other.
 *
 * @param name of the older cassette
 * @param exchanges those that have changed
 */
public record Drift(String name, List<ChangedExchange> exchanges) {

  /** Copies the list. */
  public Drift {
    exchanges = List.copyOf(exchanges);
  }

  /** A kind of change. */
  public enum Kind {
    /** The request was recorded before, and is not any more. */
    EXCHANGE_GONE,
    /** The request was not recorded before. */
    EXCHANGE_NEW,
    /** Another status; or trouble in place of a response. */
    STATUS,
    /** A header that matters to callers. */
    HEADER,
    /** A member or element is not there any more. */
    GONE,
    /** A member or element is there that was not. */
    NEW,
    /** What stands there is of another type. */
    TYPE,
    /** Only the value is another. */
    VALUE;

    /** Whether code that reads the response may trip over it. */
    public boolean isOfShape() {
      return this != VALUE;
    }
  }

  /**
   * One change.
   *
   * @param kind what kind of change
   * @param place where: a header, or a path in the body; empty for the whole exchange
   * @param before what was there
   * @param after what is there now
   */
  public record Change(Kind kind, String place, String before, String after) {

    String line(int width) {
      String what = kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
      String values =
          before.isEmpty() ? after : after.isEmpty() ? before : before + "  ->  " + after;
      return String.format("    %-6s  %-" + Math.max(1, width) + "s  %s", what, place, values)
          .stripTrailing();
    }
  }

  /**
   * An exchange that has changed.
   *
   * @param request the request line
   * @param changes at least one
   */
  public record ChangedExchange(String request, List<Change> changes) {

    /** Copies the list. */
    public ChangedExchange {
      changes = List.copyOf(changes);
    }
  }

  /** Whether nothing has changed at all. */
  public boolean isNone() {
    return exchanges.isEmpty();
  }

  /** Whether more than values has changed. */
  public boolean isOfShape() {
    return exchanges.stream()
        .flatMap(exchange -> exchange.changes().stream())
        .anyMatch(change -> change.kind().isOfShape());
  }

  /** The table. */
  @Override
  public String toString() {
    if (isNone()) {
      return "Nothing has changed in \"" + name + "\".\n";
    }
    List<String> lines = new ArrayList<>();
    lines.add(
        String.format(
            "%d %s of \"%s\" %s changed%s:",
            exchanges.size(),
            exchanges.size() == 1 ? "exchange" : "exchanges",
            name,
            exchanges.size() == 1 ? "has" : "have",
            isOfShape() ? "" : ", in values only"));
    int width =
        exchanges.stream()
            .flatMap(exchange -> exchange.changes().stream())
            .mapToInt(change -> change.place().length())
            .max()
            .orElse(1);
    for (ChangedExchange exchange : exchanges) {
      lines.add("");
      lines.add("  " + exchange.request());
      exchange.changes().forEach(change -> lines.add(change.line(Math.min(width, 40))));
    }
    return String.join("\n", lines) + "\n";
  }
}
