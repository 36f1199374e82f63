// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.resource;

import dev.cachette.internal.misuse.Refusals;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** The folders whose files a stub may name, if somebody else has sent it. */
public final class Reach {

  private static final Reach ANYWHERE = new Reach(Optional.empty());

  private final Optional<List<Path>> folders;

  private Reach(Optional<List<Path>> folders) {
    this.folders = folders;
  }

  /** Returns a reach without limits. */
  public static Reach anywhere() {
    return ANYWHERE;
  }

  /** Returns a reach of these folders, and those in them. */
  public static Reach within(List<Path> folders) {
    return new Reach(Optional.of(List.copyOf(folders)));
  }

  /**
   * Checks that a file is within reach, wherever symbolic links lead; it need not exist.
   *
   * @throws IllegalArgumentException if it is not; the message lists the folders
   */
  Path require(Path file) {
    if (folders.isPresent() && folders.get().stream().noneMatch(folder -> isIn(folder, file))) {
      throw refused("\"" + file + "\" is outside of the folders of the served files: " + names());
    }
    return file;
  }

  /**
   * Checks that a stub may call the real service.
   *
   * @throws IllegalArgumentException if it may not
   */
  void requireRealService() {
    if (folders.isPresent()) {
      throw refused("realService reaches other services");
    }
  }

  private String names() {
    return folders.orElseThrow().isEmpty()
        ? "there are none"
        : String.join(", ", folders.orElseThrow().stream().map(Path::toString).toList());
  }

  private static IllegalArgumentException refused(String why) {
    return Refusals.argument(
        why + ". Stubs that come without a token must not reach further.\nFix: use a token.");
  }

  private static boolean isIn(Path folder, Path file) {
    try {
      return real(file).startsWith(folder.toRealPath());
    } catch (IOException unreadable) {
      return false;
    }
  }

  /** Returns the path behind symbolic links, of which the last parts may not exist yet. */
  private static Path real(Path file) throws IOException {
    Path path = file.toAbsolutePath().normalize();
    Path existing = path;
    while (existing.getParent() != null && !Files.exists(existing)) {
      existing = existing.getParent();
    }
    return existing.toRealPath().resolve(existing.relativize(path)).normalize();
  }
}
