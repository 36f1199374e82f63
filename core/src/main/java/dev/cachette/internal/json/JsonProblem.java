// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** A syntax error in JSON, as text with its place. */
final class JsonProblem {

  /** So much of the text is shown before and after the place. */
  private static final int AROUND = 20;

  /** Secrets that begin or end within this distance of the place are recognised. */
  private static final int WIDE = 2_000;

  private static final Pattern CODE = Pattern.compile(" \\(code \\d+\\)");

  /** Jackson's description of a position, which messages shorten. */
  private static final Pattern SOURCE = Pattern.compile("\\[Source: [^;]*; ([^]]*)]");

  private JsonProblem() {}

  /** Returns a parser's error, with its place. */
  static String of(JsonProcessingException failure) {
    String message = SOURCE.matcher(failure.getOriginalMessage()).replaceAll("$1");
    return where(failure.getLocation()) + CODE.matcher(message).replaceAll("");
  }

  /** Returns a parser's error, with its place and the text around it; secrets are masked. */
  static String of(JsonProcessingException failure, String text) {
    JsonLocation place = failure.getLocation();
    int at = place == null ? -1 : (int) place.getCharOffset();
    if (at < 0 || at > text.length()) {
      return of(failure);
    }
    String wide = text.substring(Math.max(0, at - WIDE), Math.min(text.length(), at + WIDE));
    String problem = Masking.quotedToken(of(failure), wide);
    int from = Math.max(0, at - AROUND);
    int to = Math.min(text.length(), at + AROUND);
    String near = text.substring(from, to);
    // A part of a secret cannot be told from other text.
    return Masking.body(Optional.of("application/json"), wide).contains(near)
        ? String.format(
            "%s, near %s%s%s",
            problem,
            from > 0 ? "... " : "",
            Quoting.visible(near.strip()),
            to < text.length() ? " ..." : "")
        : problem;
  }

  /** Returns a place as messages begin with it; empty for none. */
  static String where(@Nullable JsonLocation place) {
    return place == null
        ? ""
        : String.format("line %d, column %d: ", place.getLineNr(), place.getColumnNr());
  }
}
