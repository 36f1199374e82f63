// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.cassette.RecordingMode.CREATE;
import static dev.cachette.cassette.RecordingMode.EXTEND;
import static dev.cachette.cassette.RecordingMode.REPLAY;
import static dev.cachette.cassette.RecordingMode.REWRITE;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import java.io.IOException;
import java.net.ConnectException;
import java.net.HttpURLConnection;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.opentest4j.AssertionFailedError;

/** Recording from a real service, and replay without it. */
class RecordingTest {

  private static final String TIDES = "http://tides.example/v1/stations/marrow/tides";

  @TempDir Path folder;
  private RealService outside;

  @BeforeEach
  void open() throws IOException {
    outside = new RealService();
  }

  @AfterEach
  void close() {
    outside.close();
  }

  private Cachette net(RecordingMode recording) {
    return Cachette.open(
        Settings.defaults()
            .cassetteFolder(folder)
            .cassettes(CassetteSettings.defaults().mode(recording).recordingInCi())
            .realServiceAt("http://tides.example", outside.address()));
  }

  @Test
  void recordingsAreReplayedWithTheServiceStopped() throws IOException {
    outside.answers(200, "{\"high\":\"04:10\"}");
    try (Cachette net = net(CREATE)) {
      ActiveCassette cassette = net.cassette("harbour/arrival");
      assertEquals(CREATE, cassette.mode());
      assertEquals("{\"high\":\"04:10\"}", get(TIDES + "?day=1&unit=m"));
      net.calls().assertCount(1);
    }
    outside.close();
    assertTrue(Files.exists(folder.resolve("harbour/arrival.har")));
    try (Cachette net = net(CREATE)) {
      ActiveCassette cassette = net.cassette("harbour/arrival");
      assertEquals(REPLAY, cassette.mode());
      assertEquals("{\"high\":\"04:10\"}", get(TIDES + "?unit=m&day=1"));
      assertEquals("exchange 1 of harbour/arrival", net.calls().only().stub().orElseThrow().name());
    }
    assertEquals(1, outside.calls());
  }

  @Test
  void newCallsAreRecordedAndKnownOnesReplayed() throws IOException {
    outside.answers(200, "first");
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      get(TIDES);
    }
    byte[] before = Files.readAllBytes(folder.resolve("tides.har"));
    outside.answers(200, "second");
    try (Cachette net = net(EXTEND)) {
      net.cassette("tides");
      assertEquals("first", get(TIDES));
      assertEquals("second", get(TIDES + "?day=2"));
    }
    assertEquals(2, outside.calls());
    try (Cachette net = net(EXTEND)) {
      net.cassette("tides");
      assertEquals("second", get(TIDES + "?day=2"));
    }
    assertTrue(before.length < Files.size(folder.resolve("tides.har")));
    outside.answers(200, "third");
    try (Cachette net = net(REWRITE)) {
      net.cassette("tides");
      assertEquals("third", get(TIDES));
    }
    try (Cachette net = net(REPLAY)) {
      assertEquals(1, net.cassette("tides").recorded().exchanges().size());
      assertEquals("third", get(TIDES));
    }
  }

  @Test
  void repeatedRequestsAreReplayedInTheirOrderAndTheLastStays() throws IOException {
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      outside.answers(503, "busy");
      assertEquals("503 busy", get(TIDES));
      outside.answers(200, "done");
      assertEquals("done", get(TIDES));
    }
    try (Cachette net = net(REPLAY)) {
      net.cassette("tides");
      assertEquals("503 busy", get(TIDES));
      assertEquals("done", get(TIDES));
      assertEquals("done", get(TIDES));
      try (Cachette.Scope test = net.scope()) {
        assertEquals("503 busy", get(TIDES));
      }
    }
    try (Cachette net = net(REPLAY)) {
      net.cassette(
          "tides", CassetteSettings.defaults().mode(REPLAY).matching(how -> how.onceEach()));
      get(TIDES);
      get(TIDES);
      assertTrue(get(TIDES).startsWith("501 Unexpected call: GET "));
      assertThrows(AssertionFailedError.class, net::close);
    }
  }

  @Test
  void aMissIsExplainedByTheClosestRecording() throws IOException {
    outside.answers(200, "tides");
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      get(TIDES + "?day=1");
    }
    for (String[] miss :
        new String[][] {
          {TIDES + "?day=2", "query day   expected  \"1\""},
          {TIDES + "?day=1&unit=m", "actual    ?day=1&unit=m"},
          {TIDES + "/now?day=1", "NO   path"}
        }) {
      Cachette net = net(REPLAY);
      net.cassette("tides");
      String said = get(miss[0]);
      assertTrue(said.contains("Closest of 1 recorded exchange: \"exchange 1 of tides\" ("), said);
      assertTrue(said.contains(miss[1]), said);
      assertTrue(said.contains("-Dcachette.recording=EXTEND"), said);
      assertThrows(AssertionFailedError.class, net::close);
    }
  }

  @Test
  void stubsComeFirstAndEachCassetteHasItsHosts() throws IOException {
    String berths = "http://berths.example/v1";
    Settings settings =
        Settings.defaults()
            .cassetteFolder(folder)
            .realServiceAt("http://tides.example", outside.address())
            .realServiceAt("http://berths.example", outside.address());
    CassetteSettings how = CassetteSettings.defaults().recordingInCi();
    outside.answers(200, "real");
    try (Cachette net = Cachette.open(settings)) {
      net.cassette("tides", how.hosts("tides.example"));
      net.cassette("rest", how);
      net.stub("GET " + TIDES + "/stubbed").answer(text("stubbed"));
      assertEquals("stubbed", get(TIDES + "/stubbed"));
      assertEquals("real", get(TIDES));
      assertEquals("real", get(berths));
    }
    assertEquals(2, outside.calls());
    assertEquals(TIDES, onlyUrlOf("tides.har"));
    assertEquals(berths, onlyUrlOf("rest.har"));
  }

  private String onlyUrlOf(String file) {
    List<Exchange> exchanges = CassetteFiles.read(folder.resolve(file)).exchanges();
    assertEquals(1, exchanges.size());
    return exchanges.get(0).request().uri().toString();
  }

  @Test
  void anAnswerCanTakeAsLongAsItDid() throws IOException {
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      get(TIDES);
    }
    Path file = folder.resolve("tides.har");
    Files.writeString(file, Files.readString(file).replaceAll("\"time\": .*", "\"time\": 100,"));
    CassetteSettings how = CassetteSettings.defaults().mode(REPLAY);
    try (Cachette net = net(REPLAY)) {
      net.cassette("tides", how.withRecordedTiming(50));
      assertThrows(SocketTimeoutException.class, () -> get(TIDES, 100));
    }
    try (Cachette net = net(REPLAY)) {
      net.cassette("tides", how.withRecordedTiming());
      assertEquals("", get(TIDES));
    }
  }

  @Test
  void aFailedTestWritesNoCassette() throws IOException {
    outside.answers(200, "tides");
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      get(TIDES);
      net.markFailed(new AssertionError("failed"));
    }
    assertFalse(Files.exists(folder.resolve("tides.har")));
  }

  @Test
  void aMissingCassetteExplainsHowToRecordIt() {
    try (Cachette net = net(REPLAY)) {
      String said =
          assertThrows(CassetteException.class, () -> net.cassette("harbour/arrival")).getMessage();
      assertTrue(said.contains("harbour/arrival.har is missing"), said);
      assertTrue(said.contains("-Dcachette.recording=CREATE"), said);
    }
  }

  @Test
  void aRefusedConnectionIsMetAndReplayedAsOne() throws IOException {
    outside.close();
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      assertThrows(ConnectException.class, () -> get(TIDES));
      assertThrows(UnknownHostException.class, () -> get("http://nowhere.invalid/"));
    }
    try (Cachette net = net(REPLAY)) {
      assertEquals(2, net.cassette("tides").recorded().exchanges().size());
      assertThrows(ConnectException.class, () -> get(TIDES));
      assertThrows(UnknownHostException.class, () -> get("http://nowhere.invalid/"));
    }
  }

  @Test
  void aCallerThatGaveUpWaitsAsLongOnReplay() throws Exception {
    outside.answersNothing();
    try (Cachette net = net(CREATE)) {
      net.cassette("tides");
      assertThrows(SocketTimeoutException.class, () -> get(TIDES, 200));
    } finally {
      outside.goesOn();
    }
    try (Cachette net = net(REPLAY)) {
      assertEquals("no response", net.cassette("tides").recorded().exchanges().get(0).outcome());
      assertThrows(SocketTimeoutException.class, () -> get(TIDES, 200));
    }
  }

  static String get(String url) throws IOException {
    return get(url, 20_000);
  }

  private static String get(String url, int millis) throws IOException {
    HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
    connection.setReadTimeout(millis);
    int status = connection.getResponseCode();
    try (var in = status < 400 ? connection.getInputStream() : connection.getErrorStream()) {
      String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
      return status == 200 ? text : status + " " + text;
    }
  }
}
