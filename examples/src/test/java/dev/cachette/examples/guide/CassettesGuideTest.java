// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.CassetteFiles.recorded;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.ActiveCassette;
import dev.cachette.Cachette;
import dev.cachette.RealServices;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.examples.harbour.VesselRegistry;
import dev.cachette.junit.Cassette;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/cassettes.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class CassettesGuideTest {

  private static final Optional<Vessel> KITTIWAKE = Optional.of(new Vessel("Kittiwake", 4.2));

  @TempDir Path folder;

  @Test
  void first() {
    Cassettes.twice(
        folder,
        net -> {
          // snippet first
          net.cassette("harbour/arrival");

          assertEquals(KITTIWAKE, new VesselRegistry().find("Kittiwake"));
          // end
        });
  }

  /** Not run: its cassette is none of this project's. */
  // snippet annotation
  @InterceptHttp
  @Cassette
  static class ArrivalTest {

    @Test
    void findsTheVessel() {
      assertEquals(KITTIWAKE, new VesselRegistry().find("Kittiwake"));
    }

    @Test
    @Cassette(value = "harbour/arrival", mode = RecordingMode.REPLAY, hosts = "*.example")
    void findsItAgain() {
      assertEquals(KITTIWAKE, new VesselRegistry().find("Kittiwake"));
    }
  }

  // end

  @Test
  void settings() {
    Cassettes.twice(
        folder,
        net -> {
          // snippet settings
          ActiveCassette cassette =
              net.cassette(
                  "harbour/registry",
                  CassetteSettings.defaults()
                      .mode(RecordingMode.EXTEND)
                      .recordingInCi()
                      .hosts("vessels.example"));
          // end
          assertEquals(RecordingMode.EXTEND, cassette.mode());
          new VesselRegistry().find("Kittiwake");
        });
  }

  @Test
  void staging() {
    // snippet staging
    Settings settings =
        Settings.defaults()
            .cassetteFolder(Path.of("src/test/recordings"))
            .realServiceAt("https://vessels.example", "http://vessels.staging.example:8085");
    // end
    try (Cachette net = Cachette.open(settings)) {
      assertThrows(
          CassetteException.class,
          () -> net.cassette("none", CassetteSettings.defaults().mode(RecordingMode.REPLAY)));
    }
  }

  @Test
  void realServices() throws IOException {
    try (Cachette net = Cachette.open()) {
      Files.writeString(folder.resolve("staging-ca.pem"), net.proxy().authorityPem());
    }
    // snippet real-services
    RealServices services =
        RealServices.defaults()
            .at("https://berths.example", "https://127.0.0.1:8443", "berths.staging.example")
            .trusting(folder.resolve("staging-ca.pem"));
    Settings settings = Settings.defaults().realServices(services);
    // end
    assertEquals(services, settings.realServices());
  }

  @Test
  void answers() {
    Cassettes.once(
        folder,
        net -> {
          net.cassette("harbour/arrival");
          new VesselRegistry().find("Kittiwake");
        });
    Path arrival = folder.resolve("harbour/arrival.har");
    try (Cachette net = Cachette.open()) {
      // snippet answers
      net.stub("POST https://vessels.example/graphql")
          .answer(recorded(arrival, "POST .../graphql").replacing("$.data.vessel.draught", 9.9));

      assertEquals(9.9, new VesselRegistry().find("Kittiwake").orElseThrow().draught());
      // end
    }
  }
}
