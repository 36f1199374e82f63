package dev.cachette.cli;

import dev.cachette.cassette.Cassette;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.internal.cassette.RecordedAt;
import dev.cachette.internal.cassette.Recordings;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.disk.CassetteFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** A cassette that a command was given, opened; its exchanges are read when they are asked for. */
final class CassetteOnDisk implements AutoCloseable {

  private final Path path;
  private final CassetteFile file;
  private final Recordings recordings;

  CassetteOnDisk(Path path) {
    this.path = path;
    if (Files.isDirectory(path)) {
      throw new Failure(path + " is a folder. Mend: name a cassette, a file with the ending .har.");
    }
    this.file = new CassetteFile(path);
    if (!file.exists()) {
      throw new Failure("there is no file " + path + ".");
    }
    this.recordings = file.open();
  }

  CassetteFile file() {
    return file;
  }

  Recordings recordings() {
    return recordings;
  }

  List<Exchange> exchanges() {
    return recordings;
  }

  Cassette cassette() {
    return new Cassette(path.toString(), RecordedAt.of(recordings), recordings);
  }

  /** A matching that ignores what the cassette says of itself that it varies. */
  Matching ignoringVarying(Matching matching) {
    return Varying.of(recordings).ignoredBy(matching);
  }

  @Override
  public void close() {
    file.close();
  }
}
