// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.examples.harbour.Identity;
import dev.cachette.examples.services.SimulatedHarbour;
import dev.cachette.http.Request;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/secrets.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class SecretsGuideTest {

  @TempDir Path folder;

  @Test
  void named() throws IOException {
    String deskSecret = SimulatedHarbour.DESK_SECRET;
    Cassettes.twice(
        folder,
        net -> {
          // snippet named
          net.cassette(
              "harbour/token",
              CassetteSettings.defaults().recordingInCi().redact("DESK_SECRET", deskSecret));

          new Identity().token("desk", deskSecret);
          // end
        });
    String file = Files.readString(folder.resolve("harbour/token.har"));
    assertFalse(file.contains(deskSecret));
    assertTrue(file.contains("client_secret={{DESK_SECRET}}"));
  }

  @Test
  void places() {
    Cassettes.twice(
        folder,
        net -> {
          // snippet places
          net.cassette(
              "harbour/token",
              CassetteSettings.defaults()
                  .recordingInCi()
                  .redaction(
                      how ->
                          how.alsoNamed("x-request-id")
                              .except("unit")
                              .allowing("tides-of-the-day-2031-04-02"))
                  .transformed(
                      exchange ->
                          exchange.with(
                              new Request(
                                  exchange.request().method(),
                                  exchange.request().uri(),
                                  exchange.request().headers().with("user-agent"),
                                  exchange.request().body()))));
          // end
          new Identity().token("desk", SimulatedHarbour.DESK_SECRET);
        });
  }
}
