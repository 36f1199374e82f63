// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.ActiveCassette;
import dev.cachette.Cachette;
import dev.cachette.DescribedService;
import dev.cachette.StubFiles;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.tooling.Descriptions;
import dev.cachette.tooling.FileKind;
import dev.cachette.tooling.FileWatch;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The served files: stub files, cassettes, API descriptions. */
final class Served {

  private final List<Path> stubFiles = new ArrayList<>();
  private final List<Path> cassettes = new ArrayList<>();
  private final List<Path> descriptions = new ArrayList<>();

  Served(List<Path> files) {
    for (Path file : files) {
      List<Path> others =
          switch (FileKind.of(file)) {
            case CASSETTE -> cassettes;
            case DESCRIPTION -> descriptions;
            case STUBS, OTHER -> stubFiles;
          };
      others.add(file);
    }
  }

  /** Returns the only service in all of them, if there is exactly one; else null. */
  @Nullable String onlyOrigin() {
    if (!isOneDescription()) {
      return null;
    }
    List<String> origins = originsOf(descriptions.get(0));
    return origins.isEmpty() ? null : origins.get(0);
  }

  private boolean isOneDescription() {
    return descriptions.size() == 1 && stubFiles.isEmpty() && cassettes.isEmpty();
  }

  /**
   * Activates all of them.
   *
   * @param meant the origin of plain calls; null if the Host header says so
   */
  void serveBy(Cachette net, @Nullable String meant, FileWatch watch) {
    for (Path file : cassettes) {
      ActiveCassette cassette =
          net.cassette(file, CassetteSettings.defaults().mode(RecordingMode.REPLAY));
      watch.watch(
          () -> List.of(file),
          () -> {
            cassette.reload();
            return file + ", " + cassette.recorded().exchanges().size() + " exchanges";
          });
    }
    for (Path file : descriptions) {
      for (String origin : origins(file, meant)) {
        DescribedService service = net.describedBy(origin, file.toString()).answeringFromExamples();
        watch.watch(
            service::files,
            () -> {
              service.reload();
              return service.toString();
            });
      }
    }
    if (!stubFiles.isEmpty()) {
      StubFiles loaded = net.load(stubFiles.stream().map(Path::toString).toArray(String[]::new));
      watch.watch(
          loaded::files,
          () -> {
            loaded.reload();
            int stubs = loaded.stubs().size();
            return stubs + (stubs == 1 ? " stub" : " stubs");
          });
    }
  }

  /**
   * Returns the origins of an API description; or the origin of plain calls, if it has none, or if
   * there is no other.
   */
  private Set<String> origins(Path file, @Nullable String meant) {
    Set<String> origins = new LinkedHashSet<>(originsOf(file));
    if (meant != null && (origins.isEmpty() || isOneDescription())) {
      origins.add(meant);
    }
    if (origins.isEmpty()) {
      throw new Failure(
          file
              + " has no server with a host. Fix: give its origin, with --for"
              + " https://berths.example.");
    }
    return origins;
  }

  private static List<String> originsOf(Path file) {
    return Descriptions.originsOf(file);
  }
}
