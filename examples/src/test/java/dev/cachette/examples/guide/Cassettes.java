package dev.cachette.examples.guide;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.examples.services.SimulatedHarbour;
import java.nio.file.Path;
import java.time.Duration;
import java.util.function.Consumer;

/** Runs a snippet twice: with the services, and with them stopped. */
final class Cassettes {

  private Cassettes() {}

  static void twice(Path folder, Consumer<Cachette> snippet) {
    once(folder, snippet);
    try (Cachette net = Cachette.open(settings(folder))) {
      snippet.accept(net);
    }
  }

  static void once(Path folder, Consumer<Cachette> snippet) {
    try (SimulatedHarbour harbour = new SimulatedHarbour(Duration.ZERO);
        Cachette net = Cachette.open(harbour.reachedBy(settings(folder)))) {
      snippet.accept(net);
    }
  }

  private static Settings settings(Path folder) {
    return Settings.defaults()
        .cassetteFolder(folder)
        .cassettes(CassetteSettings.defaults().recordingInCi());
  }
}
