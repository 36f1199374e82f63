// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.CassetteFiles.recorded;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.RecordingMode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Drift between two recordings, and of a service. */
class DriftTest {

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

  private void record(String cassette, String query, String json) throws IOException {
    record(cassette, query, json, how -> how.mode(RecordingMode.CREATE));
  }

  private void record(
      String cassette, String query, String json, UnaryOperator<CassetteSettings> how)
      throws IOException {
    outside.answers(
        200,
        json.getBytes(StandardCharsets.UTF_8),
        headers -> headers.set("content-type", "application/json"));
    try (Cachette net = net()) {
      net.cassette(cassette, how.apply(CassetteSettings.defaults().recordingInCi()));
      assertEquals(json, RecordingTest.get(TIDES + query));
    }
  }

  private Cachette net() {
    return Cachette.open(
        Settings.defaults()
            .cassetteFolder(folder)
            .realServiceAt("http://tides.example", outside.address()));
  }

  @Test
  void saysWhichMembersHaveChangedAndHow() throws IOException {
    record(
        "old",
        "?day=1",
        "{\"station\":\"Marrow\",\"high\":[{\"at\":\"04:10\",\"m\":4.1}],\"v\":1}");
    record(
        "new",
        "?day=1",
        "{\"station\":{\"id\":7},\"high\":[{\"at\":\"04:20\"},{\"at\":\"16:40\"}],"
            + "\"unit\":\"m\",\"v\":1}");

    Drift drift =
        CassetteFiles.read(folder.resolve("old.har"))
            .compareWith(CassetteFiles.read(folder.resolve("new.har")));

    assertTrue(drift.isOfShape());
    assertEquals(
        """
          GET http://tides.example/v1/stations/marrow/tides?day=1
            type    $.station     string  ->  object
            value   $.high        1 elements  ->  2 elements
            value   $.high[*].at  "04:10"  ->  "04:20"
            gone    $.high[*].m   number
            new     $.unit        string
        """,
        drift.toString().substring(drift.toString().indexOf("  GET")));
    assertTrue(
        CassetteFiles.read(folder.resolve("old.har"))
            .compareWith(CassetteFiles.read(folder.resolve("old.har")))
            .isNone());
  }

  @Test
  void varyingPartsAreLearntAndIgnored() throws IOException {
    record("tides", "?day=1&at=1001", "{\"id\":\"a1\",\"high\":\"04:10\"}");
    record(
        "tides",
        "?day=1&at=1002",
        "{\"id\":\"b2\",\"high\":\"04:10\"}",
        how -> how.mode(RecordingMode.REWRITE).learnVarying());

    String file = Files.readString(folder.resolve("tides.har"));
    assertTrue(file.contains("\"_varying\""), file);
    assertTrue(file.contains("\"$.id\""), file);
    outside.close();
    try (Cachette net = net()) {
      net.cassette("tides");
      assertEquals("{\"id\":\"b2\",\"high\":\"04:10\"}", RecordingTest.get(TIDES + "?at=7&day=1"));
      assertTrue(RecordingTest.get(TIDES + "?at=7&day=2").startsWith("501"));
      assertThrows(AssertionError.class, net::reset);
    }
  }

  @Test
  void unchangedEntriesKeepTheirBytes() throws IOException {
    record("tides", "", "{\"high\":\"04:10\"}");
    String before = Files.readString(folder.resolve("tides.har"));
    record("tides", "", "{\"high\":\"04:10\"}", how -> how.mode(RecordingMode.REWRITE));
    String after = Files.readString(folder.resolve("tides.har"));

    assertEquals(withoutDates(before), withoutDates(after));
  }

  /** Returns the date header of the service differs from second to second; nothing else may. */
  private static String withoutDates(String har) {
    return har.replaceAll("\"_recordedAt\": .*", "")
        .replaceAll("\"value\": \".*GMT\"", "")
        .replaceAll("\"(startedDateTime|time|wait)\": .*", "");
  }

  @Test
  void aStaleCassetteIsAnErrorWhereItShallBe() throws IOException {
    record("tides", "", "{}");
    Path file = folder.resolve("tides.har");
    Files.writeString(
        file,
        Files.readString(file)
            .replaceAll("_recordedAt\": \".*\"", "_recordedAt\": \"2020-01-01T00:00:00.000Z\""));
    try (Cachette net = net()) {
      CassetteSettings fresh = CassetteSettings.defaults().staleAfter(Duration.ofDays(90));
      net.cassette("tides", fresh);
      String said =
          assertThrows(
                  CassetteException.class, () -> net.cassette("tides", fresh.failingWhenStale()))
              .getMessage();
      assertTrue(said.contains("2020-01-01") && said.contains("stale after 90 days"), said);
    }
  }

  @Test
  void aRecordingIsTheAnswerOfAStub() throws IOException {
    record("tides", "", "{\"station\":\"Marrow\",\"high\":[\"04:10\",\"16:35\"]}");
    Path file = folder.resolve("tides.har");
    try (Cachette net = net()) {
      net.stub("GET http://tides.example/v2/tides")
          .answer(recorded(file, "GET .../tides").replacing("$.high[0]", "05:00").status(203));
      assertEquals(
          "203 {\"station\":\"Marrow\",\"high\":[\"05:00\",\"16:35\"]}",
          RecordingTest.get("http://tides.example/v2/tides"));
    }
    String said =
        assertThrows(CassetteException.class, () -> recorded(file, "GET .../berths")).getMessage();
    assertTrue(said.contains("GET http://tides.example/v1/stations/marrow/tides  ->  200"), said);
    assertFalse(said.contains("null"), said);
  }
}
