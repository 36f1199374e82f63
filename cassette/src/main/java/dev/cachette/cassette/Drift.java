// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * The changes between two recordings of the same requests. Its text is a table, exchange by
 * exchange.
 *
 * @param name the name of the older cassette
 * @param exchanges the exchanges that changed
 */
public record Drift(String name, List<ChangedExchange> exchanges) {

  /** Copies the list. */
  public Drift {
    exchanges = List.copyOf(exchanges);
  }

  /** The kinds of change. */
  public enum Kind {
    /** The request is no longer recorded. */
    EXCHANGE_GONE,
    /** The request is new. */
    EXCHANGE_NEW,
    /** The status differs, or a fault replaced the response or the reverse. */
    STATUS,
    /** A header that affects callers differs. */
    HEADER,
    /** A member or element is missing. */
    GONE,
    /** A member or element is new. */
    NEW,
    /** The type of a value differs. */
    TYPE,
    /** Only a value differs. */
    VALUE;

    /** Returns true if the change may break code that reads the response. */
    public boolean isOfShape() {
      return this != VALUE;
    }
  }

  /**
   * One change.
   *
   * @param kind the kind of change
   * @param place a header, or a path in the body; empty for the whole exchange
   * @param before the old value
   * @param after the new value
   */
  public record Change(Kind kind, String place, String before, String after) {

    String line(int width) {
      String what = kind.name().toLowerCase(Locale.ROOT).replace('_', ' ');
      String values =
          before.isEmpty() ? after : after.isEmpty() ? before : before + "  ->  " + after;
      String where = place.isEmpty() ? "" : String.format("%-" + width + "s  ", place);
      return String.format("    %-6s  %s%s", what, where, values).stripTrailing();
    }
  }

  /**
   * An exchange that changed.
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

  /** Returns true if nothing changed. */
  public boolean isNone() {
    return exchanges.isEmpty();
  }

  /** Returns true if anything other than values changed. */
  public boolean isOfShape() {
    return exchanges.stream()
        .flatMap(exchange -> exchange.changes().stream())
        .anyMatch(change -> change.kind().isOfShape());
  }

  /** Returns the table. */
  @Override
  public String toString() {
    if (isNone()) {
      return "No changes in \"" + name + "\".\n";
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
