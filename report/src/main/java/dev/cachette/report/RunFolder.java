package dev.cachette.report;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The folder of a report: the report itself, and beside it one file for each JVM of the run.
 *
 * @param path the folder
 */
record RunFolder(Path path) {

  private static final String PARTS = "jvms";
  private static final String EXTENSION = ".jsonl";

  Path html() {
    return path.resolve("index.html");
  }

  Path json() {
    return path.resolve("run.json");
  }

  Path summary() {
    return path.resolve("summary.md");
  }

  /** Returns the file that JVMs lock while they write the report. */
  Path lock() {
    return path.resolve(PARTS).resolve("lock");
  }

  /** Returns a new file for this JVM; its name says which process, and which run it is part of. */
  Path partOfThisJvm(String run) throws IOException {
    Files.createDirectories(path.resolve(PARTS));
    ProcessHandle self = ProcessHandle.current();
    long started = self.info().startInstant().orElseGet(Instant::now).toEpochMilli();
    return path.resolve(PARTS).resolve(run + "-" + self.pid() + "-" + started + EXTENSION);
  }

  /**
   * Returns the files of its JVMs, in order.
   *
   * @throws NoSuchFileException if it has none
   */
  List<Path> parts() throws IOException {
    List<Path> parts = new ArrayList<>();
    if (Files.isDirectory(path.resolve(PARTS))) {
      try (DirectoryStream<Path> all =
          Files.newDirectoryStream(path.resolve(PARTS), "*" + EXTENSION)) {
        all.forEach(parts::add);
      }
    }
    parts.sort(null);
    return parts;
  }

  /** Removes what earlier runs have left: the files of JVMs that are of another run, and over. */
  void removeOtherRuns(String run) throws IOException {
    for (Path part : parts()) {
      String[] name = part.getFileName().toString().replace(EXTENSION, "").split("-", -1);
      boolean isOther = !part.getFileName().toString().startsWith(run + "-");
      if (isOther && name.length == 3 && !isAlive(name[1], name[2])) {
        Files.deleteIfExists(part);
      }
    }
  }

  private static boolean isAlive(String process, String started) {
    try {
      Optional<Instant> since =
          ProcessHandle.of(Long.parseLong(process)).flatMap(it -> it.info().startInstant());
      return since.filter(it -> it.toEpochMilli() == Long.parseLong(started)).isPresent();
    } catch (NumberFormatException ofSomeoneElse) {
      return true;
    }
  }
}
