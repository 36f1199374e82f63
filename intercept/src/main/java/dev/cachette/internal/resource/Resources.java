// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.resource;

import dev.cachette.http.Body;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.engine.AnswerFiles;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.NameSuggester;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Reads files, and resources from the context class loader. */
public final class Resources implements AnswerFiles {

  @Override
  public Body read(Delivery.Source source) {
    try {
      return source.onClassPath() ? resource(source.name()) : file(source.name());
    } catch (IOException unreadable) {
      throw Refusals.argument(
          "\"" + source.name() + "\" cannot be read: " + unreadable, unreadable);
    }
  }

  /**
   * Checks that a file can be read later.
   *
   * @throws IllegalArgumentException if it does not exist; the message says where it was expected
   */
  public void requireReadable(Delivery.Source file) {
    try {
      existing(file.name());
    } catch (IOException unreadable) {
      throw Refusals.argument("\"" + file.name() + "\" cannot be read: " + unreadable, unreadable);
    }
  }

  /**
   * Returns the full path of a file to be written later.
   *
   * @throws IllegalArgumentException if its folder does not exist
   */
  public static String requireWritable(String name) {
    Path path = path(name);
    if (Files.isDirectory(path)
        || path.getParent() == null
        || !Files.isDirectory(path.getParent())) {
      throw Refusals.argument(
          String.format(
              "\"%s\" cannot be written: its path is %s.\nFix: use a folder that exists.",
              name, path));
    }
    return path.toString();
  }

  private static Body file(String name) throws IOException {
    return Body.of(Files.readAllBytes(existing(name)));
  }

  private static Path existing(String name) throws IOException {
    Path path = path(name);
    if (!Files.isRegularFile(path)) {
      throw Refusals.argument(
          String.format(
              "There is no file \"%s\"; expected at %s.\nFix: %s",
              name,
              path,
              near(path)
                  .map(other -> "did you mean \"" + other + "\"?")
                  .orElse(
                      "use its path from the working directory, or classpath(...) for a"
                          + " resource.")));
    }
    return path;
  }

  private static Body resource(String name) throws IOException {
    String bare = name.startsWith("/") ? name.substring(1) : name;
    ClassLoader loader =
        Optional.ofNullable(Thread.currentThread().getContextClassLoader())
            .orElse(Resources.class.getClassLoader());
    try (InputStream in = loader.getResourceAsStream(bare)) {
      if (in == null) {
        throw Refusals.argument(
            String.format(
                "There is no resource \"%s\" on the classpath.\n"
                    + "Fix: use its name from the root, such as harbour/tides.json for"
                    + " src/test/resources/harbour/tides.json; file(...) reads any file.",
                name));
      }
      return Body.of(in.readAllBytes());
    }
  }

  private static Path path(String name) {
    try {
      return Path.of(name).toAbsolutePath().normalize();
    } catch (InvalidPathException malformed) {
      throw Refusals.argument("\"" + name + "\" is not a valid path.", malformed);
    }
  }

  /** Returns a similarly named file next to it. */
  static Optional<String> near(Path path) {
    Path folder = path.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      return Optional.empty();
    }
    try (Stream<Path> files = Files.list(folder)) {
      List<String> names = files.map(file -> file.getFileName().toString()).sorted().toList();
      return NameSuggester.closest(path.getFileName().toString(), names);
    } catch (IOException unreadable) {
      return Optional.empty();
    }
  }
}
