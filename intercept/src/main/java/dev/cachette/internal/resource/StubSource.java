// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.resource;

import dev.cachette.http.Body;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.stubfile.StubFileProblem;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * A stub file, or a resource on the classpath.
 *
 * @param onClassPath whether it is a resource
 * @param location its path or name
 * @param given its text, if it has no file
 */
record StubSource(boolean onClassPath, String location, Optional<String> given) {

  private static final List<String> ENDINGS = List.of(".stubs.yaml", ".stubs.yml", ".stubs.json");

  /** Returns a text without a file. */
  static StubSource ofText(String text) {
    return new StubSource(false, "", Optional.of(text));
  }

  static StubSource file(Path path) {
    return new StubSource(false, path.toString(), Optional.empty());
  }

  static StubSource resource(String name) {
    return new StubSource(true, name, Optional.empty());
  }

  /**
   * Returns the sources with these names.
   *
   * @param missing receives a problem for each missing one
   */
  static List<StubSource> all(List<String> names, Path folder, Consumer<StubFileProblem> missing) {
    List<StubSource> found = new ArrayList<>();
    for (String name : names) {
      List<StubSource> sources = named(name, folder);
      found.addAll(sources);
      if (sources.isEmpty()) {
        missing.accept(new StubFileProblem(name, 1, 1, "", nowhere(name, folder)));
      }
    }
    return found;
  }

  private static List<StubSource> named(String name, Path folder) {
    if (name.matches(".*\\.(yaml|yml|json)")) {
      return Stream.of(file(Path.of(name)), resource(name))
          .filter(StubSource::isThere)
          .limit(1)
          .toList();
    }
    for (String ending : ENDINGS) {
      StubSource file = file(folder.resolve(name + ending));
      if (file.isThere()) {
        return List.of(file);
      }
    }
    Path whole = folder.resolve(name);
    if (Files.isDirectory(whole)) {
      return inFolder(whole);
    }
    return ENDINGS.stream()
        .map(ending -> resource(name + ending))
        .filter(StubSource::isThere)
        .limit(1)
        .toList();
  }

  private static List<StubSource> inFolder(Path folder) {
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .filter(file -> ENDINGS.stream().anyMatch(file.toString()::endsWith))
          .sorted()
          .map(StubSource::file)
          .toList();
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }

  private static String nowhere(String name, Path folder) {
    return String.format(
        "there is no such stub file: neither %s.stubs.yaml, .yml or .json in %s, nor a folder %s"
            + " there, nor on the classpath. Fix: correct the name, or use a path with a file"
            + " extension.",
        name, folder.toAbsolutePath(), name);
  }

  /** Returns the file with this name, relative to this one. */
  StubSource sibling(String name) {
    if (onClassPath) {
      String folder = location.substring(0, location.lastIndexOf('/') + 1);
      return resource(Path.of(folder + name).normalize().toString().replace('\\', '/'));
    }
    return file(Path.of(location).resolveSibling(name).normalize());
  }

  boolean isThere() {
    if (!onClassPath) {
      return Files.isRegularFile(Path.of(location));
    }
    ClassLoader loader = Thread.currentThread().getContextClassLoader();
    return loader != null && loader.getResource(location) != null;
  }

  /** Returns this source. */
  StubSource requireThere() {
    if (!isThere()) {
      throw Refusals.argument(
          "there is no file "
              + label()
              + "."
              + path()
                  .flatMap(Resources::near)
                  .map(near -> " Did you mean \"" + near + "\"?")
                  .orElse(""));
    }
    return this;
  }

  String text() {
    return given.orElseGet(
        () -> {
          Body body = new Resources().read(new Delivery.Source(onClassPath, location));
          return decoded(body.bytes());
        });
  }

  /**
   * Returns the text of a file in UTF-8.
   *
   * @throws IllegalArgumentException if it is in another charset; the message gives the place
   */
  private static String decoded(byte[] bytes) {
    ByteBuffer in = ByteBuffer.wrap(bytes);
    CharBuffer out = CharBuffer.allocate(bytes.length);
    CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
    if (decoder.decode(in, out, true).isError()) {
      String before = out.flip().toString();
      int line = 1 + (int) before.chars().filter(c -> c == '\n').count();
      int column = before.length() - before.lastIndexOf('\n');
      throw Refusals.argument(
          String.format(
              "it is not encoded in UTF-8: byte 0x%02X in line %d, column %d. Fix: save it as"
                  + " UTF-8.",
              in.get(in.position()), line, column));
    }
    return out.flip().toString();
  }

  /** Returns its path, if it is a file. */
  Optional<Path> path() {
    return onClassPath || given.isPresent() ? Optional.empty() : Optional.of(Path.of(location));
  }

  /** Returns its name in messages. */
  String label() {
    if (given.isPresent()) {
      return "text";
    }
    return onClassPath ? "classpath:" + location : location;
  }
}
