// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.net.URISyntaxException;
import java.nio.file.FileSystemNotFoundException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.CodeSource;
import java.util.Optional;

/** The jar that Cachette was loaded from. */
final class OwnJar {

  private OwnJar() {}

  /** Returns its file; nothing if it is a directory, or within another jar. */
  static Optional<Path> find() {
    CodeSource source = OwnJar.class.getProtectionDomain().getCodeSource();
    if (source == null || source.getLocation() == null) {
      return Optional.empty();
    }
    try {
      Path path = Path.of(source.getLocation().toURI());
      boolean isFile =
          path.getFileSystem() == FileSystems.getDefault() && Files.isRegularFile(path);
      return isFile ? Optional.of(path) : Optional.empty();
    } catch (URISyntaxException | IllegalArgumentException | FileSystemNotFoundException noFile) {
      return Optional.empty();
    }
  }
}
