// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.demo;

import java.io.PrintWriter;

/** Prints the demo, and counts the checks that pass. */
final class Account {

  private static final String BOLD = "1";
  private static final String GREEN = "32";
  private static final String RED = "31";
  private static final String FAINT = "2";

  private final PrintWriter out;
  private final boolean colour;
  private int held;
  private int broken;

  Account(PrintWriter out, boolean colour) {
    this.out = out;
    this.colour = colour;
  }

  void heading(String text) {
    out.println();
    out.println(styled(BOLD, text));
  }

  void line(String text) {
    out.println("  " + text);
  }

  void space() {
    out.println();
  }

  /** Prints several lines unchanged, marked by a bar. */
  void quote(String text) {
    text.stripTrailing()
        .lines()
        .forEach(line -> out.println("  " + styled(FAINT, "|") + " " + line));
  }

  /** Prints a claim with the assertion that proves it, which throws if it does not hold. */
  void claim(String text, Runnable assertion) {
    try {
      assertion.run();
      held++;
      out.println("  " + styled(GREEN, "ok") + "   " + text);
    } catch (RuntimeException | AssertionError failure) {
      broken++;
      out.println("  " + styled(RED, "NO") + "   " + text);
      quote(failure.toString());
    }
  }

  /** Asserts that two values are equal. */
  static void equal(Object expected, Object actual) {
    if (!expected.equals(actual)) {
      throw new AssertionError("expected " + expected + ", but was " + actual);
    }
  }

  /** Returns what an action throws, which must be of this type. */
  static <T extends Throwable> T thrown(Class<T> type, Runnable action) {
    try {
      action.run();
    } catch (RuntimeException | AssertionError failure) {
      if (type.isInstance(failure)) {
        return type.cast(failure);
      }
      throw failure;
    }
    throw new AssertionError("nothing was thrown");
  }

  /** Prints the result; returns true if every check passed, and there was one. */
  boolean conclude() {
    out.println();
    String summary =
        broken == 0
            ? "All " + held + " checks passed."
            : broken + " of " + (held + broken) + " checks failed.";
    out.println(styled(broken == 0 ? GREEN : RED, summary));
    return broken == 0 && held > 0;
  }

  private String styled(String style, String text) {
    return colour ? "\u001b[" + style + "m" + text + "\u001b[0m" : text;
  }
}
