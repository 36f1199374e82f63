// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.cassette.Redactor;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;

/**
 * An open cassette, or a HAR file (HAR 1.2) of another tool. Its exchanges are read on access, so
 * that it may be large. Not thread-safe.
 */
public final class CassetteOnDisk implements AutoCloseable {

  private final Path path;
  private final CassetteFile file;
  private final CassetteFile.Stamp stamp;
  private final RecordedExchanges recordings;

  /**
   * Opens it.
   *
   * @param skipped is told of entries that are skipped
   * @throws ToolingException if there is no such file
   * @throws dev.cachette.cassette.CassetteException if it is not a HAR file
   */
  public CassetteOnDisk(Path path, Consumer<String> skipped) {
    this.path = path;
    if (Files.isDirectory(path)) {
      throw new ToolingException(
          path + " is a folder. Fix: name a cassette, a file that ends in .har.");
    }
    this.file = new CassetteFile(path);
    if (!file.exists()) {
      throw new ToolingException("there is no file " + path + ".");
    }
    this.stamp = file.stamp();
    this.recordings = file.open();
    recordings.skipped().ifPresent(skipped);
  }

  /** Returns its path, as it was given. */
  public Path path() {
    return path;
  }

  CassetteFile file() {
    return file;
  }

  /** Returns true if the file is still as it was opened. */
  boolean isCurrent() {
    return file.is(stamp);
  }

  RecordedExchanges recordings() {
    return recordings;
  }

  /** Returns its exchanges, as they are in the file. */
  public List<Exchange> exchanges() {
    return recordings;
  }

  /** Returns its exchanges with secrets redacted by the default rules. */
  public List<Exchange> redacted() {
    return Redactor.redacted(recordings);
  }

  /**
   * Returns its content, for comparison; redacted, since a file of another tool may have secrets,
   * and theirs are no changes.
   */
  public CassetteContent content() {
    return new CassetteContent(path.toString(), RecordedAt.of(recordings), redacted());
  }

  /** Returns a matching that ignores what the cassette declares as varying. */
  public Matching ignoringVarying(Matching matching) {
    return Varying.of(recordings).ignoredBy(matching);
  }

  @Override
  public void close() {
    file.close();
  }
}
