// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.examples.harbour.Arrival;
import dev.cachette.examples.harbour.SignIn;
import dev.cachette.examples.services.SimulatedHarbour;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.function.Supplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** True exchanges, recorded once and replayed with the services stopped. */
@ResourceLock("dev.cachette.connections")
class ArrivalCassetteTest {

  @TempDir Path cassettes;

  @Test
  void aWholeArrivalIsReplayed() throws IOException {
    CassetteSettings how =
        CassetteSettings.defaults()
            .recordingInCi()
            .redact("TIDES_KEY", SimulatedHarbour.TIDES_KEY)
            .redact("DESK_SECRET", SimulatedHarbour.DESK_SECRET);

    String file =
        replaysAsRecorded(
            how,
            () ->
                new Arrival(SimulatedHarbour.DESK_SECRET, SimulatedHarbour.TIDES_KEY)
                    .plan("Kittiwake", LocalDate.of(2031, 4, 2), 12));

    assertFalse(file.contains(SimulatedHarbour.TIDES_KEY), file);
    assertFalse(file.contains(SimulatedHarbour.DESK_SECRET), file);
  }

  @Test
  void aSignInByRedirectIsReplayed() throws IOException {
    CassetteSettings how =
        CassetteSettings.defaults()
            .recordingInCi()
            .matching(m -> m.ignoringQuery("state", "code_challenge"));

    replaysAsRecorded(
        how,
        () -> {
          new SignIn().token();
          return "signed in";
        });
  }

  private String replaysAsRecorded(CassetteSettings how, Supplier<String> code) throws IOException {
    Settings settings = Settings.defaults().cassetteFolder(cassettes);
    String recorded;
    try (SimulatedHarbour harbour = new SimulatedHarbour(Duration.ZERO);
        Cachette net = Cachette.open(harbour.reachedBy(settings))) {
      net.cassette("harbour", how);
      recorded = code.get();
    }
    try (Cachette net = Cachette.open(settings)) {
      net.cassette("harbour", how);
      assertEquals(recorded, code.get());
    }
    return Files.readString(cassettes.resolve("harbour.har"));
  }
}
