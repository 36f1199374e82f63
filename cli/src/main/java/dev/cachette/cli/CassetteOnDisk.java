// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** An open cassette; its exchanges are read on access. */
final class CassetteOnDisk implements AutoCloseable {

  private final Path path;
  private final CassetteFile file;
  private final CassetteFile.Stamp stamp;
  private final RecordedExchanges recordings;

  /**
   * Opens it.
   *
   * @param output where entries that are skipped are reported
   */
  CassetteOnDisk(Path path, Output output) {
    this.path = path;
    if (Files.isDirectory(path)) {
      throw new Failure(path + " is a folder. Fix: name a cassette, a file that ends in .har.");
    }
    this.file = new CassetteFile(path);
    if (!file.exists()) {
      throw new Failure("there is no file " + path + ".");
    }
    this.stamp = file.stamp();
    this.recordings = file.open();
    recordings.skipped().ifPresent(output::notice);
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

  List<Exchange> exchanges() {
    return recordings;
  }

  CassetteContent cassette() {
    return new CassetteContent(path.toString(), RecordedAt.of(recordings), recordings);
  }

  /** Returns a matching that ignores what the cassette declares as varying. */
  Matching ignoringVarying(Matching matching) {
    return Varying.of(recordings).ignoredBy(matching);
  }

  @Override
  public void close() {
    file.close();
  }
}
