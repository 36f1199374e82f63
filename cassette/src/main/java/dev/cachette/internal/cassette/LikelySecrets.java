// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Values that were redacted only because they look like secrets, with their places. */
final class LikelySecrets {

  private static final int MOST_LISTED = 10;
  private static final int SHOWN = 4;

  private static final String IN_JAVA =
      """
      Fix: if it is secret, name it with .redact("NAME", value) or its place with
      .redaction(how -> how.alsoNamed("...")). If it is not, allow it with \
      .redaction(how -> how.allowing("..."))\
      """;

  private static final String BY_OPTIONS =
      """
      Fix: if it is secret, give it with --secret NAME=, or its place with --secret-name NAME.
      If it is not, allow it with --allow TEXT, or its place with --not-secret NAME\
      """;

  private final Set<String> found = new LinkedHashSet<>();
  private String place = "";
  private @Nullable Supplier<String> message;

  /** Sets the message in which something is found next. */
  void lookAt(Supplier<String> where) {
    message = where;
  }

  /** Sets the place in that message. */
  void lookAt(String where) {
    place = where;
  }

  /** Ignores what is found next, in a message that is not written. */
  void lookAway() {
    message = null;
  }

  /** Adds a value. */
  void add(String value) {
    if (message == null) {
      return;
    }
    found.add(
        String.format(
            "  %s\n    random text next to a word such as key: %s... (%d characters)",
            message.get() + place,
            value.substring(0, Math.min(SHOWN, value.length())),
            value.length()));
  }

  /** Adds what another one has found. */
  void add(LikelySecrets others) {
    found.addAll(others.found);
  }

  /** Returns the number of values. */
  int count() {
    return found.size();
  }

  /** Returns each, with its place. */
  List<String> list() {
    return List.copyOf(found);
  }

  /**
   * Returns a warning that placeholders were written; empty if nothing was found.
   *
   * @param byOptions whether the fix is an option of the command line
   */
  Optional<String> warning(String cassette, boolean byOptions) {
    return text("The cassette \"%s\" has {{secret}} for text that looks like a secret.", cassette)
        .map(text -> text + (byOptions ? BY_OPTIONS : IN_JAVA) + ".");
  }

  /** Returns why exchanges were left out; empty if nothing was found. */
  Optional<String> refusal(String cassette) {
    return text(
            "The cassette \"%s\" was written without the exchanges below: redaction is strict, and"
                + " some text in them looks like a secret.",
            cassette)
        .map(text -> text + IN_JAVA + ".");
  }

  private Optional<String> text(String beginning, String cassette) {
    return found.isEmpty()
        ? Optional.empty()
        : Optional.of(String.format(beginning, cassette) + "\n\n" + shown() + "\n\n");
  }

  private String shown() {
    List<String> first = found.stream().limit(MOST_LISTED).toList();
    int more = found.size() - first.size();
    return String.join("\n", first) + (more > 0 ? "\n  and " + more + " more" : "");
  }
}
