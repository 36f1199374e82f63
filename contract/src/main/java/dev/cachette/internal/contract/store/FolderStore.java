// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.verification.StoreException;
import java.io.File;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** A store in a folder. */
final class FolderStore implements FileStore {

  private final Path folder;

  FolderStore(Path folder) {
    this.folder = folder;
  }

  @Override
  public List<String> paths() {
    if (!Files.isDirectory(folder)) {
      throw new StoreException(
          folder + " does not exist. Fix: correct the path, or publish to it, which creates it.");
    }
    try (Stream<Path> found = Files.walk(folder)) {
      return found
          .filter(Files::isRegularFile)
          .map(it -> folder.relativize(it).toString().replace(File.separatorChar, '/'))
          .filter(it -> !it.startsWith(".") && !it.contains("/."))
          .sorted()
          .toList();
    } catch (IOException unreadable) {
      throw new StoreException(folder + " cannot be read: " + unreadable, unreadable);
    }
  }

  @Override
  public String read(String path) {
    try {
      return Files.readString(folder.resolve(path));
    } catch (IOException unreadable) {
      throw new StoreException(folder.resolve(path) + " cannot be read: " + unreadable, unreadable);
    }
  }

  @Override
  public void add(Map<String, String> files, String message) {
    files.forEach(this::add);
  }

  /** Writes a file beside it and links it to its name, which fails if there is one. */
  private void add(String path, String text) {
    Path file = folder.resolve(path);
    try {
      Files.createDirectories(file.getParent());
      Path fresh = Files.createTempFile(file.getParent(), ".writing", "");
      try {
        Files.writeString(fresh, text);
        Files.createLink(file, fresh);
      } catch (UnsupportedOperationException noLinks) {
        Files.writeString(file, text, StandardOpenOption.CREATE_NEW);
      } finally {
        Files.deleteIfExists(fresh);
      }
    } catch (FileAlreadyExistsException there) {
      Facts.requireSame(path, read(path), text);
    } catch (IOException unwritable) {
      throw new StoreException(file + " cannot be written: " + unwritable, unwritable);
    }
  }

  @Override
  public String toString() {
    return folder.toString();
  }
}
