// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.Contract;
import dev.cachette.verification.StoreException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/** Finds the store at a location. */
public final class Stores {

  private static final String GIT = "git+";
  private static final int DEPTH = 3;

  private Stores() {}

  /**
   * Returns true if a location is that of a store, not of contract files: a URL, a git repository
   * without a working tree, or a folder that was published to.
   */
  public static boolean isStore(String location) {
    return isUrl(location)
        || isRepository(location)
        || hasContracts(Path.of(location, "contracts"));
  }

  /** Returns true if a folder has contracts by provider, consumer and version. */
  private static boolean hasContracts(Path folder) {
    if (!Files.isDirectory(folder)) {
      return false;
    }
    try (Stream<Path> found =
        Files.find(
            folder, DEPTH, (path, attributes) -> folder.relativize(path).getNameCount() == DEPTH)) {
      return found.anyMatch(it -> it.toString().endsWith(Contract.ENDING));
    } catch (IOException unreadable) {
      throw new StoreException(folder + " cannot be read: " + unreadable, unreadable);
    }
  }

  /** Returns the store at a location; publishing creates a folder that does not exist. */
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

  /** Returns a location for messages: without a password. */
  public static String shown(String location) {
    return isUrl(location) ? withoutPassword(location) : location;
  }

  static String withoutPassword(String url) {
    return url.replaceFirst("//[^/@]*@", "//");
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
