// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.RecordingMode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Segments of paths that vary, given or learnt, and what is learnt of XML. */
class VaryingPathTest {

  @ParameterizedTest(name = "{0} and {1}: {2}")
  @CsvSource({
    "/v1/bookings/7,       /v1/bookings/8,       /v1/bookings/{id}",
    "/v1/bookings/7/lines, /v1/bookings/8/lines, /v1/bookings/{id}/lines",
    "/v1/bookings/7,       /v1/bookings/7,       ",
    "/v1/bookings/7,       /v1/bookings/8/x,     ",
    "/v1/bookings/7/a,     /v1/bookings/8/b,     ",
    "/v1,                  /v2,                  ",
    "/v1/bookings/,        /v1/bookings/7,       ",
  })
  void oneSegmentIsLearnt(String before, String after, String learnt) {
    Varying varying =
        Varying.none().learn(List.of(exchange(before, "<a/>")), List.of(exchange(after, "<a/>")));

    assertEquals(learnt == null ? Set.of() : Set.of(learnt), varying.path());
  }

  @Test
  void whatVariesIsReadAgainAndReplaysOtherSegments() throws IOException {
    Exchange before = exchange("/v1/bookings/7", "<a id='1' at='x'><b>1</b></a>");
    Varying varying =
        Varying.none()
            .learn(
                List.of(before),
                List.of(exchange("/v1/bookings/8", "<a id='2' at='x'><b>2</b></a>")));
    assertEquals(
        Set.of(
            "/*[local-name()='a']/@*[local-name()='id']",
            "/*[local-name()='a']/*[local-name()='b']"),
        varying.xpath());

    RecordedExchanges nothing = SecretsTest.recordings(new byte[0]);
    ByteArrayOutputStream file = new ByteArrayOutputStream();
    new Merge(nothing, List.of(before), false, varying).writeTo(file, nothing, Instant.EPOCH, "1");
    LoadedCassette replay =
        new LoadedCassette(
            "harbour",
            CassetteSettings.defaults(),
            RecordingMode.REPLAY,
            SecretsTest.recordings(file.toByteArray()));

    assertTrue(replay.replay(exchange("/v1/bookings/99", "<a/>").request()).isPresent());
    assertTrue(replay.replay(exchange("/v1/others/99", "<a/>").request()).isEmpty());
  }

  @Test
  void templatesNeedASegmentThatVaries() {
    for (String wrong : new String[] {"v1/{id}", "/v1/bookings", " "}) {
      assertThrows(
          IllegalArgumentException.class, () -> Matching.byDefault().ignoringPath(wrong), wrong);
    }
  }

  private static Exchange exchange(String path, String response) {
    return Placement.of(
            "GET https://berths.example"
                + path
                + "\n\nHTTP 200\ncontent-type: application/xml\n\n"
                + response)
        .exchange();
  }
}
