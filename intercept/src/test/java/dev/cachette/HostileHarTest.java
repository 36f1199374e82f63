// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * HAR files as they are found: what cannot be replayed is named, and never read as something else.
 */
class HostileHarTest {

  private static final String HAR =
      """
      {"log": {"version": "1.2", "creator": {"name": "x", "version": "1"}, "entries": [
        {"startedDateTime": "2031-04-02T12:00:00Z", "time": 5,
         "request": {"method": "POST", "url": "https://tides.example/v1",
           "headers": [{"name": "accept", "value": "*/*"}],
           "postData": {"mimeType": "application/json", "text": "{}"}},
         "response": {"status": 200, "headers": [],
           "content": {"size": 8, "mimeType": "application/json", "text": "{\\"a\\": 1}"}}}
      ]}}
      """;

  @TempDir Path folder;

  private Path file(String har) throws Exception {
    Path file = folder.resolve("tides.har");
    Files.writeString(file, har);
    return file;
  }

  /** The text that is replaced, its replacement, and the beginning of the problem. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\0',
      textBlock =
          """
          "time": 5 | "time": "fast" | /time: is not a number of milliseconds, but "fast"
          "2031-04-02T12:00:00Z" | "yesterday" | /startedDateTime: "yesterday" is not a date
          "startedDateTime" | "started" | /startedDateTime: is missing
          "status": 200 | "status": -7 | /response/status: is not a status (100 to 999), but -7
          "status": 200 | "status": 99999 | /response/status: is not a status (100 to 999)
          "status": 200 | "status": true | /response/status: is not a status (100 to 999)
          "status": 200 | "status": 200, "status": 500 | : it has a member twice
          "mimeType": "application/json", "text": "{}" | "text": 5 | /request/postData/text: is not
          {"mimeType": "application/json", "text": "{}"} | [1] | /request/postData: is not an object
          [{"name": "accept", "value": "*/*"}] | {"a": "b"} | /request/headers: is not an array
          "name": "accept" | "name": "a b" | /request/headers/0: A header name consists of
          "headers": [], | "headers": 7, | /response/headers: is not an array
          "size": 8, | "encoding": "base64", | /response: invalid Base64
          "content": {"size": 8, | "content": [1], "x": { | /response/content: is not an object
          "text": "{\\"a\\": 1}" | "text": ["a"] | /response/content/text: is not a string
          "response": { | "response": null, "x": { | /response: is not an object
          "url": "https://tides.example/v1" | "url": "/v1" | /request: "/v1" is not an absolute URL
          """)
  void aMalformedEntryIsNamed(String old, String replacement, String problem) throws Exception {
    assertTrue(HAR.contains(old), old);
    Path file = file(HAR.replace(old, replacement));

    CassetteException refused =
        assertThrows(CassetteException.class, () -> CassetteFiles.read(file).exchanges().get(0));

    assertTrue(
        refused.getMessage().contains("in line 2, /log/entries/0" + problem), refused::getMessage);
  }

  @Test
  void aBodyThatWasNotExportedIsNotReplayedAsAnEmptyOne() throws Exception {
    Path file = file(HAR.replace(", \"text\": \"{\\\"a\\\": 1}\"", ""));
    Cachette net = Cachette.open();
    net.cassette(file, CassetteSettings.defaults().mode(RecordingMode.REPLAY));

    assertEquals(500, Calling.post("https://tides.example/v1", "{}").statusCode());

    AssertionError failure = assertThrows(AssertionError.class, net::close);
    assertTrue(
        failure.getMessage().contains("/response/content: has a size of 8 bytes, but no text"),
        failure::getMessage);
  }

  @ParameterizedTest
  @CsvSource({"'data:image/png;base64,AAAA'", "blob:https://tides.example/1", "about:blank"})
  void whatIsNoCallIsSkipped(String url) throws Exception {
    String entry = HAR.substring(HAR.indexOf("  {\"started"), HAR.indexOf("]}}"));
    String skipped = entry.replace("https://tides.example/v1", url);
    Path file = file(HAR.replace(entry, skipped + ", " + entry));

    CassetteContent cassette = CassetteFiles.read(file);

    assertEquals(1, cassette.exchanges().size());
    assertEquals("/v1", cassette.exchanges().get(0).request().uri().path());
  }
}
