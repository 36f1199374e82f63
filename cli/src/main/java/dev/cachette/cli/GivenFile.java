package dev.cachette.cli;

import dev.cachette.internal.openapi.Description;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;

/** What a file is that a command was given, by the ending of its name and what it begins with. */
enum GivenFile {
  /** A cassette, or a HAR file of another program. */
  CASSETTE,
  /** A stub file. */
  STUBS,
  /** A description in OpenAPI. */
  DESCRIPTION,
  /** Anything else. */
  OTHER;

  private static final Pattern STUB_FILE = Pattern.compile(".*\\.(yaml|yml|json)");

  /** What a file would be by its name alone, whether or not it is there. */
  static GivenFile named(Path file) {
    if (file.toString().endsWith(".har")) {
      return CASSETTE;
    }
    return STUB_FILE.matcher(file.toString()).matches() ? STUBS : OTHER;
  }

  private static boolean isDescription(Path file) {
    try {
      return Description.isOne(Files.readString(file));
    } catch (CharacterCodingException noText) {
      return false;
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }

  /**
   * What a file is.
   *
   * @throws Failure if it is not there
   */
  static GivenFile of(Path file) {
    if (!Files.isRegularFile(file)) {
      throw new Failure("there is no file " + file + ".");
    }
    GivenFile named = named(file);
    return named == STUBS && isDescription(file) ? DESCRIPTION : named;
  }
}
