// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.internal.content.ContentEncoding;
import dev.cachette.internal.json.JsonSchemas;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The file: by its standard, from other programs, and damaged. */
class HarTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();
  private static final String LATIN = "text/plain; charset=ISO-8859-1";

  @TempDir Path folder;

  private Settings settings() {
    return Settings.defaults().cassetteFolder(folder);
  }

  /** Exports of three programs, of the same page of the harbour desk in a browser. */
  @ParameterizedTest
  @ValueSource(strings = {"browser-driver", "browser-protocol", "debugging-port"})
  void exportsOfOtherProgramsAreReplayed(String export) throws Exception {
    try (InputStream in = getClass().getResourceAsStream("/har/" + export + ".har")) {
      Files.copy(in, folder.resolve(export + ".har"));
    }
    HttpClient client = HttpClient.newHttpClient();
    try (Cachette net = Cachette.open(settings())) {
      net.cassette(export, CassetteSettings.defaults().mode(RecordingMode.REPLAY));

      HttpResponse<byte[]> tides =
          client.send(
              HttpRequest.newBuilder(
                      URI.create(
                          "http://tides.example/v1/stations/marrow/tides?unit=m&day=2031-04-02"))
                  .build(),
              BodyHandlers.ofByteArray());
      assertEquals("gzip", tides.headers().firstValue("content-encoding").orElseThrow());
      assertEquals(0x1f, tides.body()[0]);
      HttpResponse<String> booked =
          post(
              client,
              "http://berths.example/v1/bookings",
              "application/json",
              "{\"from\":\"04:10\",\"vessel\":{\"draught\":4.2,\"name\":\"Kittiwake\"}}");
      assertEquals(201, booked.statusCode());
      assertEquals("{\"berth\":\"B-12\",\"from\":\"04:10\"}", booked.body());
      assertEquals(
          204,
          post(
                  client,
                  "http://berths.example/v1/remarks",
                  "application/x-www-form-urlencoded",
                  "by=desk&text=low%20water")
              .statusCode());
      net.calls().assertCount(3);
    }
  }

  private static HttpResponse<String> post(HttpClient client, String url, String type, String body)
      throws Exception {
    return client.send(
        HttpRequest.newBuilder(URI.create(url))
            .header("content-type", type)
            .POST(BodyPublishers.ofString(body))
            .build(),
        BodyHandlers.ofString());
  }

  private static final Map<String, byte[]> BODIES =
      Map.of(
          "/json", "{\"a\": [1, 2]}".getBytes(StandardCharsets.UTF_8),
          "/latin", "M\u00f6we".getBytes(StandardCharsets.ISO_8859_1),
          "/binary", new byte[] {0, 1, (byte) 0xff, 10},
          "/gzip", gzip("{\"high\":\"04:10\"}"),
          "/other", new byte[] {0x1b, 2, 3});

  private static void answer(RealService outside, String path) {
    outside.answers(
        path.equals("/json") ? 404 : 200,
        BODIES.get(path),
        headers -> {
          headers.set("content-type", path.equals("/latin") ? LATIN : "application/json");
          headers.add("x-tide", "low");
          headers.add("x-tide", "high");
          if (path.equals("/gzip") || path.equals("/other")) {
            headers.set("content-encoding", path.equals("/gzip") ? "gzip" : "br");
          }
        });
  }

  @Test
  void writtenFilesAreValidHarAndReadBackUnchanged() throws Exception {
    HttpClient client = HttpClient.newHttpClient();
    try (RealService outside = new RealService();
        Cachette net =
            Cachette.open(settings().realServiceAt("http://tides.example", outside.address()))) {
      net.cassette("all", CassetteSettings.defaults().recordingInCi());
      for (String path : BODIES.keySet()) {
        answer(outside, path);
        get(client, path);
      }
    }
    JsonNode har = MAPPER.readTree(folder.resolve("all.har").toFile());
    try (InputStream in = getClass().getResourceAsStream("/har/har-1.2.schema.json")) {
      assertEquals(List.of(), new JsonSchemas(MAPPER.readTree(in)).differences(har));
    }
    har.at("/log/entries").forEach(it -> URI.create(it.at("/request/url").asText()));
    assertTrue(har.toString().contains("\"text\":\"{\\\"high\\\":\\\"04:10\\\"}\""), har::toString);

    try (Cachette net = Cachette.open(settings())) {
      net.cassette("all", CassetteSettings.defaults().mode(RecordingMode.REPLAY));
      for (String path : BODIES.keySet()) {
        HttpResponse<byte[]> replayed = get(client, path);
        assertEquals(path.equals("/json") ? 404 : 200, replayed.statusCode());
        assertEquals(List.of("low", "high"), replayed.headers().allValues("x-tide"));
        assertArrayEquals(BODIES.get(path), replayed.body(), path);
      }
    }
  }

  private static HttpResponse<byte[]> get(HttpClient client, String path) throws Exception {
    return client.send(
        HttpRequest.newBuilder(URI.create("http://tides.example" + path)).build(),
        BodyHandlers.ofByteArray());
  }

  private static byte[] gzip(String text) {
    return ContentEncoding.GZIP.encode(text.getBytes(StandardCharsets.UTF_8));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '^',
      value = {
        "[]|line 1, column 1: a HAR file is one JSON object",
        "{\"entries\":[]}|there is no member \"log\"",
        "{\"log\":{\"version\":\"1.2\"}}|the log has no member \"entries\"",
        "{\"log\":{\"version\":\"3.0\",\"entries\":[]}}|is HAR version 3.0",
        "{\"log\":{\"entries\":[{\"request\":{\"url\":7}}]}}|(at /log/entries/0/request/url)",
        "{\"log\":{\"entries\":[{\"request\":{}}]}}|no request with a method and a url",
        "{\"log\":{\"entries\":[{\"request\":{\"method\":\"GE|line 1, column",
        "{\"log\":{\"entries\":[]}} x|line 1, column"
      })
  void aDamagedFileIsReportedWithLineAndColumn(String text, String said) throws IOException {
    Path file = Files.writeString(folder.resolve("bad.har"), text);
    String message =
        assertThrows(CassetteException.class, () -> CassetteFiles.read(file)).getMessage();
    assertTrue(message.contains("bad.har"), message);
    assertTrue(message.contains(said), message);
    assertTrue(message.contains("Fix: "), message);
    assertEquals(text, Files.readString(file));
  }

  @Test
  void aMalformedEntryIsNamed() throws IOException {
    Path file =
        Files.writeString(
            folder.resolve("bad.har"),
            "{\"log\":{\"entries\":[\n{\"request\":{\"method\":\"GET\","
                + "\"url\":\"http://tides.example\"},"
                + "\"startedDateTime\":\"yesterday\"}]}}");
    String message =
        assertThrows(CassetteException.class, () -> CassetteFiles.read(file)).getMessage();
    assertTrue(message.contains("the entry in line 2, /log/entries/0/startedDateTime: "), message);
  }
}
