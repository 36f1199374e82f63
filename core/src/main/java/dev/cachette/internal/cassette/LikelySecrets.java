package dev.cachette.internal.cassette;

import dev.cachette.cassette.CassetteException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Values that were redacted only because they look like secrets, with their places. */
final class LikelySecrets {

  private static final int MOST_LISTED = 10;
  private static final int SHOWN = 4;

  private final Set<String> found = new LinkedHashSet<>();
  private String place = "";

  /** Sets the place of what is found next. */
  void lookAt(String where) {
    place = where;
  }

  /** Adds a value. */
  void add(String value) {
    found.add(
        String.format(
            "  %s\n    random text next to a word such as key: %s... (%d characters)",
            place, value.substring(0, Math.min(SHOWN, value.length())), value.length()));
  }

  /** Returns each, with its place. */
  List<String> list() {
    return List.copyOf(found);
  }

  /** Returns a warning; empty for nothing. */
  Optional<String> warning(String cassette) {
    return found.isEmpty()
        ? Optional.empty()
        : Optional.of(
            String.format(
                "The cassette \"%s\" has {{secret}} for text that looks like a secret.\n\n"
                    + "%s\n\n"
                    + "Fix: if it is secret, name it with .redact(\"NAME\", value) or its place"
                    + " with\n"
                    + ".redaction(how -> how.alsoNamed(\"...\")). If it is not, allow it with"
                    + " .redaction(how -> how.allowing(\"...\")).",
                cassette, shown()));
  }

  /**
   * Requires that nothing was found.
   *
   * @throws CassetteException if something was
   */
  void requireNone(String cassette) {
    if (!found.isEmpty()) {
      throw new CassetteException(
          String.format(
              "The cassette \"%s\" was not written: redaction is strict, and some text looks like a"
                  + " secret.\n\n%s\n\n"
                  + "Fix: name the secret with .redact(\"NAME\", value), or its place with\n"
                  + ".redaction(how -> how.alsoNamed(\"...\")). If it is not secret, allow it with"
                  + " .redaction(how -> how.allowing(\"...\")).",
              cassette, shown()));
    }
  }

  private String shown() {
    List<String> first = found.stream().limit(MOST_LISTED).toList();
    int more = found.size() - first.size();
    return String.join("\n", first) + (more > 0 ? "\n  and " + more + " more" : "");
  }
}
