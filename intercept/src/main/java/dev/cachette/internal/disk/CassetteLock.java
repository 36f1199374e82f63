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
 * Held while a cassette is written, against other JVMs: a file beside it, locked, and deleted at
 * the end. The lock of a JVM that is killed is free at once.
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
   * @throws IOException if it cannot be had, because there are no rights, or it is held too long
   */
  static CassetteLock of(Path cassette) throws IOException {
    Path file = cassette.resolveSibling("." + cassette.getFileName() + ".lock");
    long end = System.nanoTime() + PATIENCE.toNanos();
    while (System.nanoTime() < end) {
      Optional<Object> before = identity(file);
      FileChannel channel =
          FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      FileLock lock = channel.tryLock();
      // Another may have deleted the file after we opened it; then our lock is worth nothing.
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
   * What tells a file from another of the same name. The file is not opened: on POSIX systems,
   * closing it anywhere in a process frees the lock that the process has on it.
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
