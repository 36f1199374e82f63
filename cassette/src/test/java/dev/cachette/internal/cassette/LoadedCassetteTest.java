// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;

/** A cassette in each mode, and its memory of calls. */
class LoadedCassetteTest {

  private static final CassetteSettings DEFAULTS = CassetteSettings.defaults();

  private static Request get(String url) {
    return new Request("GET", Uri.parse(url), Headers.none(), Body.empty());
  }

  private static Exchange exchange(String url, String text, int at) {
    return Exchange.answered(
        Instant.EPOCH.plusSeconds(at),
        Duration.ofMillis(100),
        "HTTP/1.1",
        get(url),
        new Response(200, Headers.none(), Body.of(text)));
  }

  private static RecordedExchanges recorded(Exchange... exchanges) throws IOException {
    RecordedExchanges nothing = SecretsTest.recordings(new byte[0]);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    new Merge(nothing, List.of(exchanges), false, Varying.none())
        .writeTo(out, nothing, Instant.EPOCH, "1");
    return SecretsTest.recordings(out.toByteArray());
  }

  private static LoadedCassette cassette(
      CassetteSettings settings, RecordingMode mode, Exchange... exchanges) throws IOException {
    return new LoadedCassette("harbour", settings, mode, recorded(exchanges));
  }

  @Test
  void eachModeReplaysOrRecords() throws IOException {
    Exchange tides = exchange("https://tides.example/v1", "high", 1);
    for (RecordingMode mode : RecordingMode.values()) {
      boolean replays = mode == RecordingMode.REPLAY || mode == RecordingMode.EXTEND;
      LoadedCassette cassette = cassette(DEFAULTS, mode, tides);

      assertEquals(replays, cassette.replay(tides.request()).isPresent(), mode.name());
      assertEquals(mode != RecordingMode.REPLAY, cassette.records(), mode.name());
      assertEquals(replays ? 1 : 0, cassette.use().replayed(), mode.name());
      assertEquals(mode != RecordingMode.REPLAY, cassette.mustAsk("berths.example"), mode.name());
      assertEquals(
          mode != RecordingMode.REPLAY && !replays, cassette.mustAsk("tides.example"), mode.name());
      assertTrue(cassette.answers(tides.request()));
      assertFalse(cassette.answers(get("https://berths.example/v1")));
      assertEquals("the cassette \"harbour\" (" + mode + ", 1 exchange)", cassette.toString());
    }
  }

  @Test
  void timingIsThatOfTheRecordingTimesItsSpeed() throws IOException {
    Exchange streamed =
        exchange("https://tides.example/v1", "high", 1)
            .inPieces(
                List.of(
                    new Exchange.Piece(Duration.ofMillis(20), 2),
                    new Exchange.Piece(Duration.ofMillis(60), 1),
                    new Exchange.Piece(Duration.ofMillis(80), 1)));
    Exchange whole = exchange("https://tides.example/v2", "high", 2);
    CassetteSettings half = DEFAULTS.withRecordedTiming(0.5);

    LoadedCassette timed = cassette(half, RecordingMode.REPLAY, streamed, whole);
    LoadedCassette.Replayed first = timed.replay(streamed.request()).orElseThrow();
    assertEquals(Duration.ofMillis(10), first.delay());
    assertEquals(List.of(Duration.ofMillis(20), Duration.ofMillis(10)), first.pauses());
    assertEquals(Duration.ofMillis(50), timed.replay(whole.request()).orElseThrow().delay());
    assertEquals(Duration.ofMillis(200), timed.use().realTime());

    LoadedCassette atOnce = cassette(DEFAULTS, RecordingMode.REPLAY, streamed);
    assertEquals(Duration.ZERO, atOnce.replay(streamed.request()).orElseThrow().delay());
  }

  @Test
  void hostsAreThoseOfTheSettings() throws IOException {
    LoadedCassette all = cassette(DEFAULTS, RecordingMode.REPLAY);
    LoadedCassette some =
        cassette(DEFAULTS.hosts("tides.example", "*.berths.example:8443"), RecordingMode.REPLAY);

    assertTrue(all.isFor("any.example", OptionalInt.of(80)));
    assertFalse(all.names("any.example", 80));
    assertTrue(some.isFor("tides.example", OptionalInt.of(80)));
    assertTrue(some.isFor("north.berths.example", OptionalInt.of(8443)));
    assertFalse(some.isFor("north.berths.example", OptionalInt.of(443)));
    assertFalse(some.isFor("any.example", OptionalInt.empty()));
    assertTrue(some.names("tides.example", 80));
  }

  @Test
  void recordedFailuresOfConnectionsComeInTurn() throws IOException {
    Exchange failed =
        FailedConnection.of(
            Instant.EPOCH, Duration.ZERO, "tides.example", 443, Fault.Kind.CONNECTION_REFUSED);
    Exchange answered = exchange("https://tides.example/v1", "high", 2);
    LoadedCassette cassette = cassette(DEFAULTS, RecordingMode.REPLAY, failed, answered);

    assertTrue(cassette.hasEarlyFaults());
    assertEquals(Fault.Kind.CONNECTION_REFUSED, cassette.nextFault("tides.example").orElseThrow());
    cassette.skipFault("tides.example");
    assertTrue(cassette.nextFault("tides.example").isEmpty());
    assertTrue(cassette.nextFault("berths.example").isEmpty());
    cassette.startAgain();
    assertTrue(cassette.nextFault("tides.example").isPresent());
    assertFalse(cassette(DEFAULTS, RecordingMode.EXTEND, failed).hasEarlyFaults());
    assertTrue(
        cassette(DEFAULTS, RecordingMode.REWRITE, failed).nextFault("tides.example").isEmpty());
  }

  @Test
  void whatFailedTestsRecordIsNotKeptUnlessItIsWanted() throws IOException {
    LoadedCassette usual = cassette(DEFAULTS, RecordingMode.CREATE);
    LoadedCassette kept = cassette(DEFAULTS.keepingOnFailure(), RecordingMode.CREATE);
    assertTrue(usual.isToBeKept());
    usual.discard();
    kept.discard();
    assertFalse(usual.isToBeKept());
    assertTrue(kept.isToBeKept());
    assertFalse(cassette(DEFAULTS, RecordingMode.REPLAY).isToBeKept());
  }

  @Test
  void aSecretThatIsSeenLaterChangesWhatWasWrittenBefore() throws IOException {
    LoadedCassette cassette = cassette(DEFAULTS, RecordingMode.CREATE);
    List<String> told = new ArrayList<>();
    cassette.recordedBy(
        new LoadedCassette.Recorder() {
          @Override
          public void kept() {
            told.add("kept");
          }
        });
    cassette.keep(exchange("https://tides.example/v1?note=low-water-17", "high", 2));
    assertTrue(cassette.hasRecorded());
    assertTrue(cassette.growth().isAll(), "the first time");
    cassette.keep(exchange("https://tides.example/v2", "high", 3));
    LoadedCassette.Growth second = cassette.growth();
    assertFalse(second.isAll());
    assertEquals(1, second.entries().size());

    Request login =
        new Request(
            "POST",
            Uri.parse("https://id.example/token"),
            Headers.none().with("content-type", "application/json"),
            Body.of("{\"password\": \"low-water-17\"}"));
    cassette.keep(
        Exchange.failed(Instant.EPOCH, Duration.ZERO, login, Fault.Kind.CONNECTION_RESET));
    LoadedCassette.Growth third = cassette.growth();
    assertTrue(third.isAll());
    assertEquals(3, third.exchanges().size());
    assertFalse(third.entries().toString().contains("low-water"), third.entries().toString());
    assertEquals(List.of("kept", "kept", "kept"), told);
    assertEquals("/token", cassette.finished().get(0).request().uri().path(), "by time");
  }

  @Test
  void whatIsArrivingIsStopped() throws IOException {
    LoadedCassette cassette = cassette(DEFAULTS, RecordingMode.CREATE);
    List<String> stopped = new ArrayList<>();
    Runnable one = () -> stopped.add("one");
    cassette.begin(one);
    cassette.begin(() -> stopped.add("two"));
    cassette.ended(one);
    cassette.stopArriving();
    assertEquals(List.of("two"), stopped);
  }
}
