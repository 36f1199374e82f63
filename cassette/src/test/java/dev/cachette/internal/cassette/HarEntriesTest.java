// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Entries of HAR files, in the file {@code entries.txt}: a member of a usual entry and its other
 * value, nothing to leave it out; an arrow, and what is read, or why it is refused.
 */
class HarEntriesTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  private static final String ENTRY =
      """
      {"startedDateTime": "2031-04-02T04:10:00.000+02:00", "time": 12.5,
       "request": {"method": "POST", "url": "https://tides.example/v1?day=1",
         "httpVersion": "HTTP/1.1",
         "headers": [{"name": "content-type", "value": "text/plain"}],
         "postData": {"mimeType": "text/plain", "text": "asked"}},
       "response": {"status": 200, "httpVersion": "HTTP/1.1",
         "headers": [{"name": "content-type", "value": "text/plain"}],
         "content": {"size": 8, "mimeType": "text/plain", "text": "answered"}}}
      """;

  static Stream<String> lines() throws IOException {
    try (InputStream in = HarEntriesTest.class.getResourceAsStream("/entries.txt")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8)
          .lines()
          .filter(line -> !line.isBlank() && !line.startsWith("#"));
    }
  }

  @ParameterizedTest
  @MethodSource("lines")
  void eachEntryIsReadOrRefused(String line) throws Exception {
    String[] sides = line.split(" =>", 2);
    JsonNode entry = MAPPER.readTree(ENTRY);
    for (String change : sides[0].split(" ; ")) {
      String[] pair = change.split(" = ", 2);
      int last = pair[0].lastIndexOf('/');
      ObjectNode parent = (ObjectNode) entry.at(pair[0].substring(0, last));
      String name = pair[0].substring(last + 1);
      if (pair.length == 1) {
        parent.remove(name);
      } else {
        parent.set(name, MAPPER.readTree(pair[1]));
      }
    }
    assertEquals(line, sides[0] + " => " + said(entry));
  }

  private static String said(JsonNode entry) throws IOException {
    try {
      Exchange exchange = recordings(entry.toString()).replayable(0);
      return exchange.request().method()
          + " "
          + exchange.request().uri()
          + said(exchange.request().headers(), exchange.request().text())
          + " -> "
          + exchange.response().map(HarEntriesTest::said).orElseGet(exchange::outcome)
          + ", "
          + exchange.time().toNanos() / 1_000
          + " us, "
          + exchange.protocol()
          + (exchange.pieces().isEmpty() ? "" : ", " + exchange.pieces());
    } catch (CassetteException refused) {
      return refused.getMessage().lines().findFirst().orElse("");
    }
  }

  private static String said(Response response) {
    String trailers = response.trailers().isEmpty() ? "" : " + " + response.trailers();
    return response.status() + said(response.headers(), response.text()) + trailers;
  }

  private static String said(Headers headers, String body) {
    List<String> fields = headers.stream().map(it -> it.name() + ": " + it.value()).toList();
    return " " + fields + " " + body;
  }

  private static RecordedExchanges recordings(String... entries) throws IOException {
    return SecretsTest.recordings(har("", entries).getBytes(StandardCharsets.UTF_8));
  }

  private static String har(String members, String... entries) {
    return "{\"log\": {\"version\": \"1.2\", \"creator\": {\"name\": \"x\", \"version\": \"1\"}, "
        + members
        + "\"entries\": ["
        + String.join(",", entries)
        + "]}}";
  }

  @Test
  void theTimeIsThatOfTheFileOrOfItsLastEntry() throws IOException {
    String later = ENTRY.replace("2031-04-02T04", "2031-04-02T09");
    String broken = ENTRY.replace("2031-04-02T04", "today at ");
    assertEquals("2031-04-02T07:10:00Z", recordedAt("", ENTRY, later, broken));
    assertEquals(
        "2031-05-01T00:00:00Z", recordedAt("\"_recordedAt\": \"2031-05-01T00:00:00Z\",", ENTRY));
    assertEquals("none", recordedAt(""));
  }

  private static String recordedAt(String members, String... entries) throws IOException {
    byte[] file = har(members, entries).getBytes(StandardCharsets.UTF_8);
    return RecordedAt.of(SecretsTest.recordings(file)).map(Instant::toString).orElse("none");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "GET https://tides.example/v1/tides      | high",
        "GET https://tides.example/v1/{any}      | high",
        "GET .../v1/tides                        | high",
        "* .../tides                             | high",
        "GET .../v1/tides?day=2                  | high",
        "GET .../v1/berths                       | The cassette harbour has no answered exchange",
        "GET .../v1/lost                         | The cassette harbour has no answered exchange",
        "GET https://tides.example/v1/{+rest}    | high",
        "* https://*/v1/{any}                    | The cassette harbour has several exchanges",
      })
  void anAnswerIsFoundByItsLine(String line, String expected) throws IOException {
    RecordedExchanges recordings =
        recordings(
            entry("GET", "https://tides.example/v1/tides?day=2", 200, "high"),
            entry("GET", "https://tides.example/v1/tides?day=2", 503, "low"),
            entry("GET", "https://tides.example/v1/lost", 0, ""),
            entry("POST", "https://berths.example/v1/bookings", 201, "booked"));
    CassetteContent content = new CassetteContent("harbour", Optional.empty(), recordings);
    String said;
    try {
      said = RecordedAnswers.of(content, line).response().text();
    } catch (CassetteException refused) {
      said = refused.getMessage().replaceAll(" for \"(?s:.*)", "");
    }
    assertEquals(expected, said);
  }

  private static String entry(String method, String url, int status, String text) {
    return ENTRY
        .replace("POST", method)
        .replace("https://tides.example/v1?day=1", url)
        .replace("200", Integer.toString(status))
        .replace("answered", text);
  }

  @Test
  void whatIsRecordedAgainWithoutAChangeStaysAsItWas() throws IOException {
    String noted = ENTRY.replace("\"time\"", "\"comment\": \"by hand\", \"time\"");
    String other = entry("GET", "https://berths.example/v1", 200, "free");
    RecordedExchanges before = recordings(noted, other);
    RecordedExchanges current =
        recordings(noted, other, entry("GET", "https://pilots.example/v1", 200, "on board"));
    Exchange same = recordings(ENTRY.replace("12.5", "99")).get(0);
    Exchange changed = recordings(other.replace("free", "taken")).get(0);

    String rewritten = merged(before, current, true, same, changed);
    assertEquals(
        List.of("by hand", "taken", "on board"),
        Stream.of("by hand", "free", "taken", "on board").filter(rewritten::contains).toList());
    String extended = merged(before, current, false, changed);
    assertEquals(
        List.of("by hand", "free", "taken", "on board"),
        Stream.of("by hand", "free", "taken", "on board").filter(extended::contains).toList());
    RecordedExchanges ofAnotherProcess = recordings(noted, other, other.replace("free", "taken"));
    String once = merged(before, ofAnotherProcess, false, changed);
    assertEquals(once.indexOf("taken"), once.lastIndexOf("taken"), "recorded by both");
  }

  private static String merged(
      RecordedExchanges before,
      RecordedExchanges current,
      boolean rewriting,
      Exchange... recorded) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    new Merge(before, List.of(recorded), rewriting, Varying.none())
        .writeTo(out, current, Instant.EPOCH, "1");
    return out.toString(StandardCharsets.UTF_8);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "''                       | harbour.har",
        "[]                       | harbour.har",
        "{\"log\": []}            | harbour.har",
        "{\"log\": {}}            | harbour.har",
        "{\"log\": {\"entries\": 5}} | harbour.har",
        "{\"log\": {\"entries\": [5]}} | harbour.har",
        "not JSON                 | harbour.har",
      })
  void whatIsNoHarFileIsRefused(String text, String named) throws IOException {
    if (text.isEmpty()) {
      assertEquals(0, SecretsTest.recordings(new byte[0]).size());
      return;
    }
    byte[] file = text.getBytes(StandardCharsets.UTF_8);
    String said =
        assertThrows(CassetteException.class, () -> SecretsTest.recordings(file).forEach(it -> {}))
            .getMessage();
    assertEquals(named, said.contains(named) ? named : said);
  }
}
