// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
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

  /** Returns a new file for this JVM. */
  Path partOfThisJvm(String run) throws IOException {
    Files.createDirectories(path.resolve(PARTS));
    return path.resolve(PARTS).resolve(PartName.ofThisJvm(run).toString());
  }

  /** Returns the files of its JVMs, in order. */
  List<Path> parts() throws IOException {
    List<Path> parts = new ArrayList<>();
    if (Files.isDirectory(path.resolve(PARTS))) {
      try (DirectoryStream<Path> all =
          Files.newDirectoryStream(path.resolve(PARTS), "*" + PartName.EXTENSION)) {
        all.forEach(parts::add);
      }
    }
    parts.sort(null);
    return parts;
  }

  /** Returns the files of the JVMs of one run, in order. */
  List<Path> parts(String run) throws IOException {
    return parts().stream()
        .filter(part -> PartName.of(part).filter(it -> it.run().equals(run)).isPresent())
        .toList();
  }

  /** Removes what earlier runs have left: the files of JVMs that are of another run, and over. */
  void removeOtherRuns(String run) throws IOException {
    for (Path part : parts()) {
      Optional<PartName> name = PartName.of(part);
      if (name.isPresent() && !name.get().run().equals(run) && !name.get().isAlive()) {
        Files.deleteIfExists(part);
      }
    }
  }
}
