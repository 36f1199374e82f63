// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.examples.services.SimulatedHarbour;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.Consumer;

/** Runs a snippet, and checks that it does not need the services again. */
final class Cassettes {

  private Cassettes() {}

  /** Runs it with the services, and with them stopped: then the cassette answers each call. */
  static void twice(Path folder, Consumer<Cachette> snippet) {
    once(folder, snippet);
    try (Cachette net = Cachette.open(settings(folder))) {
      snippet.accept(net);
      List<String> answered =
          net.calls().stream().map(call -> call.stub().orElseThrow().name()).toList();
      assertFalse(answered.isEmpty(), "no calls");
      assertEquals(
          List.of(), answered.stream().filter(it -> it.startsWith("recorded into")).toList());
    }
  }

  /** Runs it with the services. */
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
