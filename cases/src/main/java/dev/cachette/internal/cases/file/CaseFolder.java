// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.file;

import dev.cachette.cassette.CassetteException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/**
 * A folder of cases, with folders in it.
 *
 * @param path its path
 */
public record CaseFolder(Path path) {

  /** The end of the names of files. */
  static final String EXTENSION = ".har";

  /** Returns the file of a case. */
  public Path file(String name) {
    return path.resolve(name + EXTENSION);
  }

  /**
   * Reads all cases, in the order of their names; none if the folder does not exist.
   *
   * @throws CassetteException if a file is not one of a case
   */
  public List<CaseFile> read() {
    if (!Files.isDirectory(path)) {
      return List.of();
    }
    try (Stream<Path> files = Files.walk(path)) {
      return files
          .filter(file -> file.getFileName().toString().endsWith(EXTENSION))
          .filter(file -> !file.getFileName().toString().startsWith("."))
          .sorted((one, other) -> nameOf(one).compareTo(nameOf(other)))
          .map(file -> CaseFile.read(file, nameOf(file)))
          .toList();
    } catch (IOException | UncheckedIOException unreadable) {
      throw new CassetteException(path + " cannot be read: " + unreadable.getMessage());
    }
  }

  private String nameOf(Path file) {
    String name = path.relativize(file).toString().replace('\\', '/');
    return name.substring(0, name.length() - EXTENSION.length());
  }
}
