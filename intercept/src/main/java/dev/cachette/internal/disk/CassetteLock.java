package dev.cachette.internal.disk;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Arrays;
import java.util.UUID;
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
      FileChannel channel =
          FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
      FileLock lock = channel.tryLock();
      if (lock != null && isTheOneOnDisk(file, channel)) {
        return new CassetteLock(file, channel, lock);
      }
      channel.close();
      LockSupport.parkNanos(PAUSE_NANOS);
    }
    throw new FileSystemException(
        file.toString(), null, "is locked by another process for more than " + PATIENCE);
  }

  /** Another may have deleted the file after we opened it; then our lock is worth nothing. */
  private static boolean isTheOneOnDisk(Path file, FileChannel channel) throws IOException {
    byte[] mark = UUID.randomUUID().toString().getBytes(StandardCharsets.US_ASCII);
    channel.truncate(0);
    channel.write(ByteBuffer.wrap(mark), 0);
    try {
      return Arrays.equals(mark, Files.readAllBytes(file));
    } catch (NoSuchFileException deleted) {
      return false;
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
