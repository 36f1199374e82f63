// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.disk;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.internal.cassette.HarIndex;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.RecordedExchanges;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A cassette on disk. While it is open, its indexed content can be read, even if another process
 * replaces the file.
 */
public final class CassetteFile implements AutoCloseable {

  private static final int BUFFER = 1 << 16;
  private static final String UNFINISHED = ".part";

  private final Path path;
  private final String shown;
  private @Nullable FileChannel opened;

  /**
   * Creates a reference to a file that may not exist yet.
   *
   * @param path its path
   */
  public CassetteFile(Path path) {
    this.path = path.toAbsolutePath().normalize();
    this.shown = path.toString().replace('\\', '/');
  }

  /**
   * Reads a whole cassette into memory.
   *
   * @throws CassetteException if it is missing or damaged
   */
  public static CassetteContent read(Path path) {
    try (CassetteFile file = new CassetteFile(path)) {
      if (!file.exists()) {
        throw new CassetteException("There is no cassette " + path.toAbsolutePath() + ".");
      }
      RecordedExchanges recordings = file.open();
      return new CassetteContent(file.shown, RecordedAt.of(recordings), List.copyOf(recordings));
    }
  }

  /** Returns its name in messages. */
  public String shown() {
    return shown;
  }

  /** Returns true if the file exists. */
  public boolean exists() {
    return Files.exists(path);
  }

  /**
   * Opens its content; empty if it does not exist.
   *
   * @throws CassetteException if it is damaged, or cannot be read
   */
  public RecordedExchanges open() {
    if (!exists()) {
      return nothing();
    }
    try {
      opened = FileChannel.open(path, StandardOpenOption.READ);
      return read(opened);
    } catch (IOException unreadable) {
      throw failed("read", unreadable);
    }
  }

  /**
   * Writes what was recorded, and keeps what other processes have added in the meantime. The file
   * is replaced atomically.
   *
   * @return the stamp of the new file
   * @throws CassetteException if it cannot be written; the file is unchanged then
   */
  public Stamp save(Merge merge, Instant now, String version) {
    return save((current, out) -> merge.writeTo(out, current, now, version));
  }

  /** Writes the content of a file. */
  @FunctionalInterface
  public interface Writing {

    /** Writes it, based on its current content. */
    void write(RecordedExchanges current, OutputStream out);
  }

  /**
   * Replaces it with another file, under the same lock and as atomically as {@link #save}.
   *
   * @throws CassetteException if it cannot be written; the file is unchanged then
   */
  public Stamp save(Writing writing) {
    return locked(() -> replace(out -> write(writing, out)));
  }

  /** Something that is done under the lock of the file. */
  private interface Locked<T> {
    T run() throws IOException;
  }

  private <T> T locked(Locked<T> action) {
    try {
      Files.createDirectories(path.getParent());
      // File locks are between processes. Within one, closing a file that another thread has locked
      // would free its lock; an interned string is shared by all class loaders.
      synchronized (path.toString().intern()) {
        try (CassetteLock ignored = CassetteLock.of(path)) {
          deleteWhatWasNotFinished();
          return action.run();
        }
      }
    } catch (UncheckedIOException unwritable) {
      throw failed("written", unwritable.getCause());
    } catch (IOException unwritable) {
      throw failed("written", unwritable);
    }
  }

  /** Identifies the content of a file, without reading it. */
  public record Stamp(Object identity, long size) {}

  /**
   * Returns the stamp of the file.
   *
   * @throws CassetteException if it cannot be read
   */
  public Stamp stamp() {
    try {
      return stamp(path);
    } catch (IOException unreadable) {
      throw failed("read", unreadable);
    }
  }

  private static Stamp stamp(Path file) throws IOException {
    BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
    return new Stamp(List.of(now.lastModifiedTime(), key(now)), now.size());
  }

  /** Returns true if it is still the file with this stamp. */
  public boolean is(Stamp known) {
    try {
      return exists() && stamp(path).equals(known);
    } catch (IOException gone) {
      return false;
    }
  }

  private static Object key(BasicFileAttributes file) {
    return file.fileKey() == null ? file.creationTime() : file.fileKey();
  }

  /**
   * Adds entries after the last one, as atomically as {@link #save}, without reading the file.
   *
   * @param entries the entries, as they follow others
   * @param end what follows the last entry
   * @param known the stamp of the file for which that is true
   * @return the stamp of the new file; empty if it has changed since: nothing is written then
   * @throws CassetteException if it cannot be written; the file is unchanged then
   */
  public Optional<Stamp> append(String entries, String end, Stamp known) {
    byte[] last = end.getBytes(StandardCharsets.UTF_8);
    return locked(
        () ->
            is(known)
                ? Optional.of(replace(out -> append(entries, last, known, out)))
                : Optional.empty());
  }

  private void append(String entries, byte[] end, Stamp known, FileChannel out) throws IOException {
    try (FileChannel current = FileChannel.open(path)) {
      long kept = known.size() - end.length;
      for (long at = 0; at < kept; ) {
        at += current.transferTo(at, kept - at, out);
      }
    }
    OutputStream buffered = new BufferedOutputStream(Channels.newOutputStream(out), BUFFER);
    buffered.write(entries.getBytes(StandardCharsets.UTF_8));
    buffered.write(end);
    buffered.flush();
  }

  /** Deletes what a killed process left behind; nobody else is writing now. */
  private void deleteWhatWasNotFinished() throws IOException {
    String prefix = "." + path.getFileName();
    try (DirectoryStream<Path> left =
        Files.newDirectoryStream(
            path.getParent(),
            file ->
                file.getFileName().toString().startsWith(prefix)
                    && file.toString().endsWith(UNFINISHED))) {
      for (Path each : left) {
        Files.deleteIfExists(each);
      }
    }
  }

  /** Writes the new content. */
  private interface Content {
    void write(FileChannel out) throws IOException;
  }

  private void write(Writing writing, FileChannel out) throws IOException {
    OutputStream buffered = new BufferedOutputStream(Channels.newOutputStream(out), BUFFER);
    if (exists()) {
      try (FileChannel current = FileChannel.open(path, StandardOpenOption.READ)) {
        writing.write(read(current), buffered);
      }
    } else {
      writing.write(nothing(), buffered);
    }
    buffered.flush();
    out.force(true);
  }

  private Stamp replace(Content content) throws IOException {
    Path temporary = Files.createTempFile(path.getParent(), "." + path.getFileName(), UNFINISHED);
    try {
      try (FileChannel out = FileChannel.open(temporary, StandardOpenOption.WRITE)) {
        content.write(out);
      }
      readableAsOthers(temporary);
      Stamp stamp = stamp(temporary);
      Files.move(
          temporary, path, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      return stamp;
    } finally {
      Files.deleteIfExists(temporary);
    }
  }

  /**
   * Temporary files are private to their owner; a cassette keeps the permissions of the file it
   * replaces.
   */
  private void readableAsOthers(Path temporary) throws IOException {
    if (path.getFileSystem().supportedFileAttributeViews().contains("posix")) {
      Files.setPosixFilePermissions(
          temporary,
          exists()
              ? Files.getPosixFilePermissions(path)
              : PosixFilePermissions.fromString("rw-r--r--"));
    }
  }

  private RecordedExchanges nothing() {
    return new RecordedExchanges(
        HarIndex.empty(shown),
        entry -> {
          throw new IllegalStateException("there is no entry");
        });
  }

  private RecordedExchanges read(FileChannel file) throws IOException {
    InputStream in = new BufferedInputStream(Channels.newInputStream(file.position(0)), BUFFER);
    HarIndex index = HarIndex.read(shown, in);
    return new RecordedExchanges(index, entry -> text(file, entry));
  }

  private String text(FileChannel file, HarIndex.Entry entry) {
    try {
      ByteBuffer bytes = ByteBuffer.allocate(entry.length());
      long at = entry.offset();
      while (bytes.hasRemaining()) {
        int count = file.read(bytes, at);
        if (count < 0) {
          break;
        }
        at += count;
      }
      return new String(bytes.array(), 0, bytes.position(), StandardCharsets.UTF_8);
    } catch (IOException unreadable) {
      throw failed("read", unreadable);
    }
  }

  private CassetteException failed(String verb, IOException cause) {
    return new CassetteException(
        String.format(
            "The cassette %s cannot be %s: %s\n"
                + "Fix: check its permissions and the free disk space. The file is unchanged.",
            path, verb, cause.getClass() == IOException.class ? cause.getMessage() : cause),
        cause);
  }

  @Override
  public void close() {
    if (opened != null) {
      try {
        opened.close();
      } catch (IOException harmless) {
        // It was opened for reading only.
      }
      opened = null;
    }
  }
}
