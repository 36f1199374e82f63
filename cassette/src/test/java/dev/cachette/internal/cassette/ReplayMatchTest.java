// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static java.util.Map.entry;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Matching.Part;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.match.MatchInternals;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Which requests a recording answers, in the file {@code replays.txt}: a matching, the recorded
 * request, a request, an arrow, and what differs; nothing if it is answered.
 */
class ReplayMatchTest {

  private static final Map<String, Matching> MATCHINGS =
      Map.ofEntries(
          entry("default", Matching.byDefault()),
          entry("line", Matching.byDefault().on(Part.METHOD, Part.ORIGIN, Part.PATH, Part.QUERY)),
          entry("method", Matching.byDefault().on(Part.METHOD)),
          entry("header", Matching.byDefault().andHeaders("x-desk", "accept")),
          entry("no header", Matching.byDefault().andHeaders("x-desk").ignoringHeaders("x-desk")),
          entry("path", Matching.byDefault().ignoringPath("/v1/bookings/{id}/notes/{note}")),
          entry("query", Matching.byDefault().ignoringQuery("at", "nonce")),
          entry("json", Matching.byDefault().ignoringJson("$..id", "$.at")),
          entry("xml", Matching.byDefault().ignoringXPath("//at", "/a/@id")),
          entry("field", Matching.byDefault().ignoringFields("at", "plan")),
          entry(
              "own",
              Matching.byDefault()
                  .by((recorded, actual) -> recorded.text().length() == actual.text().length())));

  static Stream<String> lines() throws IOException {
    try (InputStream in = ReplayMatchTest.class.getResourceAsStream("/replays.txt")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8)
          .lines()
          .filter(line -> !line.isBlank() && !line.startsWith("#"));
    }
  }

  @ParameterizedTest
  @MethodSource("lines")
  void eachRequestIsAnsweredOrNot(String line) throws IOException {
    String[] sides = line.split(" =>", 2);
    String[] parts = sides[0].split(" \\|\\| ");
    Matching matching = Optional.ofNullable(MATCHINGS.get(parts[0])).orElseThrow();
    LoadedCassette cassette = replaying(matching, request(parts[1]));
    Request actual = request(parts[2]);

    boolean answered = cassette.replay(actual).isPresent();
    String said =
        cassette.near(actual).stream()
            .flatMap(
                stub ->
                    Stream.concat(
                        MatchInternals.examine(stub.pattern(), actual).misses().stream(),
                        stub.obstacles().get().stream()))
            .flatMap(check -> check.differences().stream().map(it -> said(check, it)))
            .collect(Collectors.joining(" ;"));

    assertEquals(line, sides[0] + " =>" + (answered ? "" : said.isEmpty() ? " ?" : said));
  }

  private static String said(Check check, Difference difference) {
    return (" " + check.condition() + " " + difference.at()).stripTrailing()
        + ": "
        + difference.expected()
        + ", actual "
        + difference.actual()
        + difference.cause().map(it -> " (" + it + ")").orElse("");
  }

  /** Reads {@code METHOD URL | name: value | body}. */
  private static Request request(String text) {
    String[] parts = text.split(" \\| ", 3);
    String[] line = parts[0].split(" ", 2);
    Headers headers = Headers.none();
    for (String each :
        parts.length > 1 && !parts[1].isBlank() ? parts[1].split(", ") : new String[0]) {
      String[] pair = each.split(": ", 2);
      headers = headers.and(pair[0].strip(), pair[1]);
    }
    String body = parts.length > 2 ? parts[2].replace("\\r\\n", "\r\n") : "";
    return new Request(line[0], Uri.parse(line[1]), headers, Body.of(body));
  }

  private static Exchange answered(Request request, int number) {
    Response response = new Response(200, Headers.none(), Body.of("answer " + number));
    return Exchange.answered(
        Instant.EPOCH.plusSeconds(number), Duration.ZERO, "HTTP/1.1", request, response);
  }

  private static LoadedCassette replaying(Matching matching, Request... recorded)
      throws IOException {
    LoadedCassette recording =
        new LoadedCassette(
            "harbour",
            CassetteSettings.defaults(),
            RecordingMode.CREATE,
            SecretsTest.recordings(new byte[0]));
    int number = 0;
    for (Request request : recorded) {
      recording.keep(answered(request, ++number));
    }
    RecordedExchanges nothing = SecretsTest.recordings(new byte[0]);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    new Merge(nothing, recording.finished(), false, Varying.none())
        .writeTo(out, nothing, Instant.EPOCH, "1");
    return new LoadedCassette(
        "harbour",
        CassetteSettings.defaults().matching(any -> matching),
        RecordingMode.REPLAY,
        SecretsTest.recordings(out.toByteArray()));
  }

  @Test
  void recordingsOfOneRequestAnswerInTurnAndTheLastOneRepeats() throws IOException {
    Request tides = request("GET https://tides.example/v1/tides");
    Request berths = request("GET https://berths.example/v1/berths");
    LoadedCassette cassette = replaying(Matching.byDefault(), tides, berths, tides);

    assertEquals(List.of("1", "3", "3"), answers(cassette, tides, 3));
    assertEquals(List.of("2", "2"), answers(cassette, berths, 2));
    cassette.startAgain();
    assertEquals(List.of("1"), answers(cassette, tides, 1));
    assertEquals(6, cassette.use().calls());
    assertEquals(3, cassette.use().replayed());
  }

  @Test
  void onceEachAnswersNoMoreThanWasRecorded() throws IOException {
    Request tides = request("GET https://tides.example/v1/tides");
    LoadedCassette cassette = replaying(Matching.byDefault().onceEach(), tides, tides);

    assertEquals(List.of("1", "2", "none"), answers(cassette, tides, 3));
  }

  private static List<String> answers(LoadedCassette cassette, Request request, int times) {
    return Stream.generate(() -> cassette.replay(request))
        .limit(times)
        .map(
            it ->
                it.flatMap(replayed -> replayed.exchange().response())
                    .map(response -> response.text().replace("answer ", ""))
                    .orElse("none"))
        .toList();
  }
}
