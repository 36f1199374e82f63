// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import java.nio.file.Files;
import java.nio.file.Path;

/** Finds the store at a location. */
public final class Stores {

  private static final String GIT = "git+";

  private Stores() {}

  /**
   * Returns true if a location is that of a store, not of contract files: a URL, a git repository
   * without a working tree, or a folder that was published to.
   */
  public static boolean isStore(String location) {
    return isUrl(location)
        || isRepository(location)
        || Files.isDirectory(Path.of(location, "contracts"));
  }

  /** Returns the store at a location; a folder that does not exist yet is an empty one. */
  public static Library at(String location) {
    if (location.startsWith(GIT)) {
      return new Library(new GitStore(location.substring(GIT.length())));
    }
    if (isRepository(location)) {
      return new Library(new GitStore(location));
    }
    return new Library(
        isUrl(location) ? new HttpStore(location) : new FolderStore(Path.of(location)));
  }

  private static boolean isUrl(String location) {
    return location.startsWith(GIT)
        || location.startsWith("http://")
        || location.startsWith("https://");
  }

  private static boolean isRepository(String location) {
    return !isUrl(location)
        && Files.isRegularFile(Path.of(location, "HEAD"))
        && Files.isDirectory(Path.of(location, "objects"));
  }
}
