package dev.cachette.internal.text;

import dev.cachette.internal.uri.Percent;
import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.Optional;

/** Where two texts part, and what the likely cause is. */
public final class TextDifference {

  private TextDifference() {}

  /** The first place where the texts differ; the length of the shorter if one begins the other. */
  public static int place(String one, String other) {
    int shorter = Math.min(one.length(), other.length());
    int at = 0;
    while (at < shorter && one.charAt(at) == other.charAt(at)) {
      at++;
    }
    return at;
  }

  /** Why two texts that differ may have been taken for the same. */
  public static Optional<String> cause(String expected, String actual) {
    if (expected.equalsIgnoreCase(actual)) {
      return Optional.of("the same but for letter case");
    }
    if (expected.strip().equals(actual.strip())) {
      return Optional.of("the same but for white space at its ends");
    }
    if (withoutInvisible(expected).equals(withoutInvisible(actual))) {
      return Optional.of("the same but for an invisible character, written as an escape here");
    }
    if (squeezed(expected).equals(squeezed(actual))) {
      return Optional.of("the same but for white space or line ends");
    }
    if (Normalizer.normalize(expected, Normalizer.Form.NFC)
        .equals(Normalizer.normalize(actual, Normalizer.Form.NFC))) {
      return Optional.of("the same letters, but composed otherwise (Unicode normal forms)");
    }
    return encoding(expected, actual)
        .or(() -> quotes(expected, actual))
        .or(() -> number(expected, actual));
  }

  private static Optional<String> encoding(String expected, String actual) {
    String once = Percent.decodeForm(actual);
    if (once.equals(expected)) {
      return Optional.of("encoded once too often by the caller");
    }
    if (Percent.decodeForm(expected).equals(actual)) {
      return Optional.of(
          "what the stub expects is still percent-encoded; values are decoded first");
    }
    return Optional.empty();
  }

  private static Optional<String> quotes(String expected, String actual) {
    return actual.equals("\"" + expected + "\"") || expected.equals("\"" + actual + "\"")
        ? Optional.of("the same but for quotes around it")
        : Optional.empty();
  }

  private static Optional<String> number(String expected, String actual) {
    try {
      return new BigDecimal(expected).compareTo(new BigDecimal(actual)) == 0
          ? Optional.of("the same number, written otherwise")
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
