// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import dev.cachette.internal.uri.Percent;
import dev.cachette.result.Cause;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.List;
import java.util.Optional;

/** Finds where two texts differ, and the likely cause. */
public final class TextDifference {

  /** The encoding that many systems mean by ISO-8859-1. */
  private static final Charset WINDOWS =
      Charset.isSupported("windows-1252")
          ? Charset.forName("windows-1252")
          : StandardCharsets.ISO_8859_1;

  private TextDifference() {}

  /**
   * Returns the first position where the texts differ; the length of the shorter one if it is a
   * prefix.
   */
  public static int place(String one, String other) {
    int shorter = Math.min(one.length(), other.length());
    int at = 0;
    while (at < shorter && one.charAt(at) == other.charAt(at)) {
      at++;
    }
    return at;
  }

  /** Returns the cause of a difference between similar texts, if one is known. */
  public static Optional<Cause> cause(String expected, String actual) {
    if (expected.equalsIgnoreCase(actual)) {
      return certain("differs in letter case only");
    }
    if (expected.strip().equals(actual.strip())) {
      return certain("differs in white space at its ends only");
    }
    if (withoutInvisible(expected).equals(withoutInvisible(actual))) {
      return certain("differs in an invisible character only, shown as an escape here");
    }
    if (squeezed(expected).equals(squeezed(actual))) {
      return certain("differs in white space or line endings only");
    }
    if (Normalizer.normalize(expected, Normalizer.Form.NFC)
        .equals(Normalizer.normalize(actual, Normalizer.Form.NFC))) {
      return certain("the same letters in another Unicode normal form");
    }
    return plus(expected, actual)
        .or(() -> encoding(expected, actual))
        .or(() -> charset(expected, actual))
        .or(() -> quotes(expected, actual).map(Cause::certain))
        .or(() -> number(expected, actual).map(Cause::certain));
  }

  private static Optional<Cause> certain(String text) {
    return Optional.of(Cause.certain(text));
  }

  /** In queries and forms, a plus sign is a space, and {@code %2B} is a plus sign. */
  private static Optional<Cause> plus(String expected, String actual) {
    if (expected.indexOf('+') >= 0 && expected.replace('+', ' ').equals(actual)) {
      return Optional.of(
          Cause.likely("sent as +, which is a space in a query or form; a plus sign is %2B there"));
    }
    return actual.indexOf('+') >= 0 && actual.replace('+', ' ').equals(expected)
        ? Optional.of(
            Cause.likely("a space that was sent as %2B, a plus sign; a space is + or %20"))
        : Optional.empty();
  }

  private static Optional<Cause> encoding(String expected, String actual) {
    if (actual.indexOf('%') >= 0
        && (Percent.decode(actual).equals(expected)
            || Percent.decodeForm(actual).equals(expected))) {
      return Optional.of(Cause.likely("encoded twice by the caller"));
    }
    return expected.indexOf('%') >= 0 && Percent.decodeForm(expected).equals(actual)
        ? certain(
            "the expected value is percent-encoded; values are decoded before they are compared")
        : Optional.empty();
  }

  private static Optional<Cause> charset(String expected, String actual) {
    if (expected.chars().noneMatch(c -> c > 0x7f)) {
      return Optional.empty();
    }
    for (Charset other : List.of(StandardCharsets.ISO_8859_1, WINDOWS)) {
      if (new String(expected.getBytes(StandardCharsets.UTF_8), other).equals(actual)) {
        return Optional.of(
            Cause.likely(
                "UTF-8 that was read as " + other + ": the content type names another charset"));
      }
      if (new String(expected.getBytes(other), StandardCharsets.UTF_8).equals(actual)) {
        return Optional.of(
            Cause.likely(other + " that was read as UTF-8: bytes that are not UTF-8"));
      }
    }
    return Optional.empty();
  }

  private static Optional<String> quotes(String expected, String actual) {
    return actual.equals("\"" + expected + "\"") || expected.equals("\"" + actual + "\"")
        ? Optional.of("differs in the quotes around it only")
        : Optional.empty();
  }

  private static Optional<String> number(String expected, String actual) {
    try {
      return new BigDecimal(expected).compareTo(new BigDecimal(actual)) == 0
          ? Optional.of("the same number in another notation")
          : Optional.empty();
    } catch (NumberFormatException notBothNumbers) {
      return Optional.empty();
    }
  }

  private static String withoutInvisible(String text) {
    StringBuilder out = new StringBuilder(text.length());
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      if (Character.getType(c) == Character.SPACE_SEPARATOR) {
        out.append(' ');
      } else if (!Quoting.isInvisible(c) || c == '\n' || c == '\r' || c == '\t') {
        out.append(c);
      }
    }
    return out.toString();
  }

  private static String squeezed(String text) {
    return text.strip().replaceAll("\\s+", " ");
  }
}
