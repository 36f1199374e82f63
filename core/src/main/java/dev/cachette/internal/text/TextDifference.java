package dev.cachette.internal.text;

import dev.cachette.internal.uri.Percent;
import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.Optional;

/** Finds where two texts differ, and the likely cause. */
public final class TextDifference {

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

  /** Returns the likely cause of a difference between similar texts. */
  public static Optional<String> cause(String expected, String actual) {
    if (expected.equalsIgnoreCase(actual)) {
      return Optional.of("differs in letter case only");
    }
    if (expected.strip().equals(actual.strip())) {
      return Optional.of("differs in white space at its ends only");
    }
    if (withoutInvisible(expected).equals(withoutInvisible(actual))) {
      return Optional.of("differs in an invisible character only, shown as an escape here");
    }
    if (squeezed(expected).equals(squeezed(actual))) {
      return Optional.of("differs in white space or line endings only");
    }
    if (Normalizer.normalize(expected, Normalizer.Form.NFC)
        .equals(Normalizer.normalize(actual, Normalizer.Form.NFC))) {
      return Optional.of("the same letters in another Unicode normal form");
    }
    return encoding(expected, actual)
        .or(() -> quotes(expected, actual))
        .or(() -> number(expected, actual));
  }

  private static Optional<String> encoding(String expected, String actual) {
    String once = Percent.decodeForm(actual);
    if (once.equals(expected)) {
      return Optional.of("encoded twice by the caller");
    }
    if (Percent.decodeForm(expected).equals(actual)) {
      return Optional.of(
          "the expected value is percent-encoded; values are decoded before they are compared");
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
