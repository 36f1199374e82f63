package dev.cachette.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;

/** What a file is that a command was given, by the ending of its name. */
enum GivenFile {
  /** A cassette, or a HAR file of another program. */
  CASSETTE,
  /** A stub file. */
  STUBS,
  /** Anything else. */
  OTHER;

  private static final Pattern STUB_FILE = Pattern.compile(".*\\.(yaml|yml|json)");

  /** What a file would be, whether or not it is there. */
  static GivenFile named(Path file) {
    if (file.toString().endsWith(".har")) {
      return CASSETTE;
    }
    return STUB_FILE.matcher(file.toString()).matches() ? STUBS : OTHER;
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
    return named(file);
  }
}
