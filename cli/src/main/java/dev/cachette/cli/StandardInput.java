// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads a file from standard input, if its name is {@code -}. Its content says what kind it is. */
final class StandardInput {

  private static final String NAME = "-";

  /** The commands that read files. */
  private static final Set<String> READING =
      Set.of("show", "check", "compare", "convert", "serve", "refresh");

  private static final Pattern CASSETTE = Pattern.compile("\\s*\\{\\s*\"log\"\\s*:[\\s\\S]*");

  /** Keys at the beginning of a line of YAML, or of an object of JSON. */
  private static final Pattern YAML =
      Pattern.compile(
          "(?s)(?:.*\\n)?[{\\s]*\"?(?:stubs|include|collections|openapi|swagger)\"?\\s*:.*");

  private StandardInput() {}

  /** Returns the arguments with the name of a temporary file, which is deleted at the end. */
  static String[] read(String... arguments) throws IOException {
    if (arguments.length == 0 || !READING.contains(arguments[0])) {
      return arguments;
    }
    String[] read = arguments.clone();
    Path file = null;
    for (int at = 1; at < read.length && !read[at].equals("--"); at++) {
      if (read[at].equals(NAME) && !read[at - 1].startsWith("--")) {
        file = file == null ? copy() : file;
        read[at] = file.toString();
      }
    }
    return read;
  }

  private static Path copy() throws IOException {
    byte[] content = System.in.readAllBytes();
    Path folder = Files.createTempDirectory("cachette");
    Path file = Files.write(folder.resolve("stdin" + extension(content)), content);
    folder.toFile().deleteOnExit();
    file.toFile().deleteOnExit();
    return file;
  }

  private static String extension(byte[] content) {
    String text = new String(content, StandardCharsets.UTF_8);
    if (CASSETTE.matcher(text).matches()) {
      return ".har";
    }
    return YAML.matcher(text).matches() ? ".yaml" : ".txt";
  }
}
