package dev.cachette.internal.resource;

import dev.cachette.answer.Delivery;
import dev.cachette.http.Body;
import dev.cachette.internal.stub.ContentReader;
import dev.cachette.internal.text.Likeness;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Reads files, and resources as the class loader of the calling thread sees them. */
public final class Resources implements ContentReader {

  @Override
  public Body read(Delivery.Source source) {
    try {
      return source.onClassPath() ? resource(source.name()) : file(source.name());
    } catch (IOException unreadable) {
      throw new IllegalArgumentException(
          "\"" + source.name() + "\" cannot be read: " + unreadable, unreadable);
    }
  }

  /**
   * Whether a file is there to be read later.
   *
   * @throws IllegalArgumentException if it is not; the message says where it was looked for
   */
  public void requireReadable(Delivery.Source file) {
    try {
      existing(file.name());
    } catch (IOException unreadable) {
      throw new IllegalArgumentException(
          "\"" + file.name() + "\" cannot be read: " + unreadable, unreadable);
    }
  }

  /**
   * The whole path of a file that is to be written later.
   *
   * @throws IllegalArgumentException if there is no folder that it could be in
   */
  public static String requireWritable(String name) {
    Path path = path(name);
    if (Files.isDirectory(path)
        || path.getParent() == null
        || !Files.isDirectory(path.getParent())) {
      throw new IllegalArgumentException(
          String.format(
              "\"%s\" cannot be written to; it would be at %s.\nMend: name a file in a folder that "
                  + "is there.",
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
      throw new IllegalArgumentException(
          String.format(
              "There is no file \"%s\"; it was looked for at %s.\nMend: %s",
              name,
              path,
              near(path)
                  .map(other -> "is \"" + other + "\" meant, which is there?")
                  .orElse(
                      "give its path from the working directory, or use classpath(...) for a "
                          + "resource.")));
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
        throw new IllegalArgumentException(
            String.format(
                "There is no resource \"%s\" on the class path.\n"
                    + "Mend: name it from the root, as harbour/tides.json for "
                    + "src/test/resources/harbour/tides.json; file(...) reads any file.",
                name));
      }
      return Body.of(in.readAllBytes());
    }
  }

  private static Path path(String name) {
    try {
      return Path.of(name).toAbsolutePath().normalize();
    } catch (InvalidPathException malformed) {
      throw new IllegalArgumentException("\"" + name + "\" is no path of a file.", malformed);
    }
  }

  /** A file beside it that has almost the same name. */
  static Optional<String> near(Path path) {
    Path folder = path.toAbsolutePath().getParent();
    if (folder == null || !Files.isDirectory(folder)) {
      return Optional.empty();
    }
    try (Stream<Path> files = Files.list(folder)) {
      List<String> names = files.map(file -> file.getFileName().toString()).sorted().toList();
      return Likeness.nearest(path.getFileName().toString(), names);
    } catch (IOException unreadable) {
      return Optional.empty();
    }
  }
}
