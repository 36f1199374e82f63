package dev.cachette.internal.match;

/** Builds the error for a request line that cannot be read: what, where, and how to mend it. */
final class MalformedRequestLine {

  private final String line;

  MalformedRequestLine(String line) {
    this.line = line;
  }

  /**
   * The error.
   *
   * @param at the place in the line, counted from 0
   */
  IllegalArgumentException at(int at, String what, String mend) {
    return new IllegalArgumentException(
        String.format(
            "Malformed request line, at column %d: %s\n\n  %s\n  %s^\n\nMend: %s",
            at + 1, what, visible(line), " ".repeat(at), mend));
  }

  /** Keeps the line on one line, and every character one column wide. */
  private static String visible(String text) {
    return text.replaceAll("\\p{Cntrl}", "\u00b7");
  }
}
