package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.CassetteInPlay;
import dev.cachette.DescribedService;
import dev.cachette.StubFiles;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Recording;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.resource.DescriptionSource;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The files that are served: stub files, cassettes, descriptions. */
final class Served {

  private final List<Path> stubFiles = new ArrayList<>();
  private final List<Path> cassettes = new ArrayList<>();
  private final List<Path> descriptions = new ArrayList<>();

  Served(List<Path> files) {
    for (Path file : files) {
      switch (GivenFile.of(file)) {
        case CASSETTE -> cassettes.add(file);
        case DESCRIPTION -> descriptions.add(file);
        default -> stubFiles.add(file);
      }
    }
  }

  /** The one service that all of it is about, if that can be told; else null. */
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
   * Puts all of it into force.
   *
   * @param meant what plain calls are meant for; null where the Host header says so
   */
  void serveBy(Cachette net, @Nullable String meant, Reloading reloading) {
    for (Path file : cassettes) {
      CassetteInPlay cassette =
          net.cassette(file, CassetteSettings.defaults().recording(Recording.REPLAY));
      reloading.watch(
          () -> List.of(file),
          () -> {
            cassette.reload();
            return file + ", " + cassette.recorded().exchanges().size() + " exchanges";
          });
    }
    for (Path file : descriptions) {
      for (String origin : origins(file, meant)) {
        DescribedService service = net.describedBy(origin, file.toString()).answeringFromExamples();
        reloading.watch(
            service::files,
            () -> {
              service.reload();
              return service.toString();
            });
      }
    }
    if (!stubFiles.isEmpty()) {
      StubFiles loaded = net.load(stubFiles.stream().map(Path::toString).toArray(String[]::new));
      reloading.watch(
          loaded::files,
          () -> {
            loaded.reload();
            int stubs = loaded.stubs().size();
            return stubs + (stubs == 1 ? " stub" : " stubs");
          });
    }
  }

  /**
   * Where a description says that the service is; and what plain calls are meant for, if it says
   * nothing, or there is nothing else that they could be meant for.
   */
  private Set<String> origins(Path file, @Nullable String meant) {
    Set<String> origins = new LinkedHashSet<>(originsOf(file));
    if (meant != null && (origins.isEmpty() || isOneDescription())) {
      origins.add(meant);
    }
    if (origins.isEmpty()) {
      throw new Failure(
          file
              + " names no server with a host. Mend: say which one it describes, with --for "
              + "https://berths.example.");
    }
    return origins;
  }

  private static List<String> originsOf(Path file) {
    return Description.read(DescriptionSource.named(file.toString(), Path.of(""))).origins();
  }
}
