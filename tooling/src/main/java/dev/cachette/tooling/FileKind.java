// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.internal.openapi.Description;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;

/** The kind of a file, by its extension and its beginning. */
public enum FileKind {
  /** A cassette, or a HAR file exported by another tool. */
  CASSETTE,
  /** A stub file. */
  STUBS,
  /** An OpenAPI description. */
  DESCRIPTION,
  /** Anything else. */
  OTHER;

  private static final Pattern STUB_FILE = Pattern.compile(".*\\.(yaml|yml|json)");

  /** Returns the kind by name only, whether or not the file exists. */
  public static FileKind named(Path file) {
    if (file.toString().endsWith(".har")) {
      return CASSETTE;
    }
    return STUB_FILE.matcher(file.toString()).matches() ? STUBS : OTHER;
  }

  /** Returns the lines of a file that has been read as text before. */
  static List<String> lines(Path file) {
    try {
      return Files.readAllLines(file);
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
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
   * Returns the kind of a file.
   *
   * @throws ToolingException if it does not exist
   */
  public static FileKind of(Path file) {
    if (!Files.isRegularFile(file)) {
      throw ToolingException.noFile(file);
    }
    FileKind named = named(file);
    return named == STUBS && isDescription(file) ? DESCRIPTION : named;
  }
}
