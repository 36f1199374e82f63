// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.disk;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;

/**
 * A lock against other JVMs while a cassette is written: a locked file next to it, deleted at the
 * end. If a JVM is killed, its lock is free immediately.
 */
final class CassetteLock implements AutoCloseable {

  private static final Duration PATIENCE = Duration.ofSeconds(60);
  private static final long PAUSE_NANOS = 2_000_000;

  private final Path file;
  private final FileChannel channel;
  private final FileLock lock;

  private CassetteLock(Path file, FileChannel channel, FileLock lock) {
    this.file = file;
    this.channel = channel;
    this.lock = lock;
  }

  /**
   * Waits for the lock.
   *
   * @throws IOException if it is not available: no permission, or held too long
   */
  static CassetteLock of(Path cassette) throws IOException {
    Path file = cassette.resolveSibling("." + cassette.getFileName() + ".lock");
    long end = System.nanoTime() + PATIENCE.toNanos();
    while (System.nanoTime() < end) {
      Optional<Object> before = identity(file);
      FileChannel channel =
          FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      FileLock lock = channel.tryLock();
      // If another process deleted the file after we opened it, our lock is worthless.
      if (lock != null && before.isPresent() && before.equals(identity(file))) {
        return new CassetteLock(file, channel, lock);
      }
      channel.close();
      if (before.isPresent()) {
        LockSupport.parkNanos(PAUSE_NANOS);
      }
    }
    throw new FileSystemException(
        file.toString(), null, "is locked by another process for more than " + PATIENCE);
  }

  /**
   * Returns the identity of a file. The file is not opened: on POSIX systems, closing it anywhere
   * in a process frees the lock of that process.
   */
  private static Optional<Object> identity(Path file) throws IOException {
    try {
      BasicFileAttributes attributes = Files.readAttributes(file, BasicFileAttributes.class);
      return Optional.of(
          attributes.fileKey() == null ? attributes.creationTime() : attributes.fileKey());
    } catch (NoSuchFileException notThere) {
      return Optional.empty();
    }
  }

  @Override
  public void close() throws IOException {
    try (channel) {
      Files.deleteIfExists(file);
      lock.release();
    }
  }
}
