// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.CassetteFiles;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.examples.harbour.CustomsClient;
import dev.cachette.junit.InterceptHttp;
import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/drift.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class DriftGuideTest {

  @TempDir Path folder;

  @Test
  void compared() {
    for (String name : new String[] {"before", "after"}) {
      Cassettes.once(
          folder,
          net -> {
            net.cassette(name);
            new CustomsClient().declare("Kittiwake", 12);
          });
    }
    // snippet compared
    Drift drift =
        CassetteFiles.read(folder.resolve("before.har"))
            .compareWith(CassetteFiles.read(folder.resolve("after.har")));

    assertFalse(drift.isOfShape(), drift::toString);
    // end
    assertTrue(drift.toString().contains("/Envelope/Body/declared/number"), drift::toString);
  }

  @Test
  void stale() {
    Cassettes.twice(
        folder,
        net -> {
          // snippet stale
          net.cassette(
              "harbour/customs",
              CassetteSettings.defaults()
                  .recordingInCi()
                  .staleAfter(Duration.ofDays(90))
                  .failingWhenStale());
          // end
          new CustomsClient().declare("Kittiwake", 12);
        });
  }
}
