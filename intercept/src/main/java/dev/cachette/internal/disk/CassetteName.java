// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.disk;

import dev.cachette.internal.misuse.Refusals;
import java.nio.file.Path;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Maps the name of a cassette to its file: a slash makes a folder, {@code .har} is appended. */
public final class CassetteName {

  private static final String ENDING = ".har";
  private static final String REFUSED = "\\:*?\"<>|";

  private CassetteName() {}

  /**
   * Returns the file.
   *
   * @throws IllegalArgumentException if the name is not a valid file in that folder on every system
   */
  public static Path in(Path folder, @Nullable String name) {
    if (name == null || name.isBlank()) {
      throw refused(name, "it is empty");
    }
    Path file = folder;
    for (String part : name.split("/", -1)) {
      file = file.resolve(checked(name, part));
    }
    String last = file.getFileName().toString();
    boolean whole = last.toLowerCase(Locale.ROOT).endsWith(ENDING);
    return whole ? file : file.resolveSibling(last + ENDING);
  }

  private static String checked(String name, String part) {
    if (part.isBlank() || part.startsWith(".") || !part.equals(part.strip())) {
      throw refused(name, "\"" + part + "\" is not a valid file or folder name");
    }
    for (int at = 0; at < part.length(); at++) {
      char c = part.charAt(at);
      if (c < ' ' || REFUSED.indexOf(c) >= 0) {
        throw refused(name, "it has the character " + (c < ' ' ? (int) c : "'" + c + "'"));
      }
    }
    return part;
  }

  private static IllegalArgumentException refused(@Nullable String name, String why) {
    return Refusals.argument(
        String.format(
            "\"%s\" cannot be the name of a cassette: %s.\n"
                + "Fix: use letters, digits, spaces, - _ and . in it, and / for a folder, as in "
                + "\"harbour/arrival\".",
            name, why));
  }
}
