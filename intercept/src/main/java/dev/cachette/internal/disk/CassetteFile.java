package dev.cachette.internal.disk;

import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.CassetteException;
import dev.cachette.internal.cassette.HarIndex;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.Recordings;
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
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A cassette on disk. While it is open, what was indexed can be read, even where another process
 * puts a new file in its place.
 */
public final class CassetteFile implements AutoCloseable {

  private static final int BUFFER = 1 << 16;
  private static final String UNFINISHED = ".part";

  private final Path path;
  private final String shown;
  private @Nullable FileChannel opened;

  /**
   * A file that may not be there yet.
   *
   * @param path where it is
   */
  public CassetteFile(Path path) {
    this.path = path.toAbsolutePath().normalize();
    this.shown = path.toString().replace('\\', '/');
  }

  /**
   * A whole cassette in memory.
   *
   * @throws CassetteException if it is missing or damaged
   */
  public static Cassette read(Path path) {
    try (CassetteFile file = new CassetteFile(path)) {
      if (!file.exists()) {
        throw new CassetteException("There is no cassette " + path.toAbsolutePath() + ".");
      }
      Recordings recordings = file.open();
      return new Cassette(file.shown, RecordedAt.of(recordings), List.copyOf(recordings));
    }
  }

  /** As messages name it. */
  public String shown() {
    return shown;
  }

  /** Whether there is such a file. */
  public boolean exists() {
    return Files.exists(path);
  }

  /**
   * What stands in it; nothing if it is not there.
   *
   * @throws CassetteException if it is damaged, or cannot be read
   */
  public Recordings open() {
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
   * Writes what was recorded, and keeps what others have put into the file meanwhile. At every
   * moment there is the old file or the new one, as a whole.
   *
   * @throws CassetteException if it cannot be written; the file is as it was then
   */
  public void save(Merge merge, Instant now, String version) {
    save((current, out) -> merge.writeTo(out, current, now, version));
  }

  /** Writes a file. */
  @FunctionalInterface
  public interface Writing {

    /** Writes it, of what stands there now. */
    void write(Recordings current, OutputStream out);
  }

  /**
   * Puts another file in its place, under the same lock and as whole as {@link #save}.
   *
   * @throws CassetteException if it cannot be written; the file is as it was then
   */
  public void save(Writing writing) {
    try {
      Files.createDirectories(path.getParent());
      // Locks of files are between processes. Within one, closing a file that another thread has
      // locked would free its lock; and of one text there is one object, for all class loaders.
      synchronized (path.toString().intern()) {
        try (CassetteLock ignored = CassetteLock.of(path)) {
          deleteWhatWasNotFinished();
          replace(writing);
        }
      }
    } catch (UncheckedIOException unwritable) {
      throw failed("written", unwritable.getCause());
    } catch (IOException unwritable) {
      throw failed("written", unwritable);
    }
  }

  /** What a process that was killed has left; nobody else writes now. */
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

  private void replace(Writing writing) throws IOException {
    Path temporary = Files.createTempFile(path.getParent(), "." + path.getFileName(), UNFINISHED);
    try {
      try (FileChannel out = FileChannel.open(temporary, StandardOpenOption.WRITE)) {
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
      readableAsOthers(temporary);
      Files.move(
          temporary, path, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(temporary);
    }
  }

  /** Temporary files are their owner's alone; a cassette is as readable as the file it replaces. */
  private void readableAsOthers(Path temporary) throws IOException {
    if (path.getFileSystem().supportedFileAttributeViews().contains("posix")) {
      Files.setPosixFilePermissions(
          temporary,
          exists()
              ? Files.getPosixFilePermissions(path)
              : PosixFilePermissions.fromString("rw-r--r--"));
    }
  }

  private Recordings nothing() {
    return new Recordings(
        HarIndex.empty(shown),
        entry -> {
          throw new IllegalStateException("there is no entry");
        });
  }

  private Recordings read(FileChannel file) throws IOException {
    InputStream in = new BufferedInputStream(Channels.newInputStream(file.position(0)), BUFFER);
    HarIndex index = HarIndex.read(shown, in);
    return new Recordings(index, entry -> text(file, entry));
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
            "The cassette %s cannot be %s: %s\nMend: check its rights and the space on its disk. "
                + "The file is as it was.",
            path, verb, cause),
        cause);
  }

  @Override
  public void close() {
    if (opened != null) {
      try {
        opened.close();
      } catch (IOException harmless) {
        // It was only read.
      }
      opened = null;
    }
  }
}
