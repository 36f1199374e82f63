// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Answers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The commands for cassettes, on those of the examples. */
class CassetteCommandsTest {

  private static final Path EXAMPLES = Path.of("..", "examples", "src", "test");
  private static final Path ARRIVAL = EXAMPLES.resolve("cassettes/harbour/arrival.har");
  private static final Path BERTHS = EXAMPLES.resolve("stubs/berths.openapi.yaml");

  @TempDir Path folder;

  @Test
  void showListsTheExchanges() throws Exception {
    Run run = Run.of("show", ARRIVAL.toString(), "--status", "5xx");

    assertEquals(
        """
        #  METHOD  URL                                 ANSWER  TYPE  SIZE  TIME
        4  POST    https://berths.example/v1/bookings  503           0 B   40 ms
        """,
        run.out());
    assertTrue(run.err().startsWith("1 of 6 exchanges, recorded at 2026-"), run.err());
    assertEquals(0, run.code());
  }

  @Test
  void showFiltersAndPrintsJson() throws Exception {
    Run run =
        Run.of("show", ARRIVAL.toString(), "--json", "--host", "*.example", "--text", "LOCATION");
    Run one = Run.of("show", ARRIVAL.toString(), "--json", "--method", "get", "-q");

    assertTrue(new ObjectMapper().readTree(run.out()).isArray());
    JsonNode only = new ObjectMapper().readTree(one.out()).get(0);
    assertEquals(3, only.get("number").intValue());
    assertEquals(
        "https://tides.example/v1/stations/Marrow%20Bay/tides?day=2031-04-02",
        only.get("url").textValue());
    assertEquals("", one.err());
  }

  @Test
  void showLaysOneExchangeOutInFull() throws Exception {
    Run run = Run.of("show", ARRIVAL.toString(), "--exchange", "3");

    assertTrue(
        run.out()
            .contains(
                """
                {
                  "station" : "Marrow Bay",
                  "high" : [ "04:10", "16:35" ],
                """),
        run.out());
    assertTrue(run.out().contains("x-api-key: {{x-api-key}}"), run.out());
    Run whole = Run.of("show", ARRIVAL.toString(), "--full", "-q");
    assertTrue(whole.out().contains(run.out().strip()), whole.out());
  }

  @Test
  void compareShowsDriftAndFailsOnDemand() throws Exception {
    Path other = folder.resolve("other.har");
    Files.writeString(other, Files.readString(ARRIVAL).replace("\\\"high\\\"", "\\\"highs\\\""));

    Run same = Run.of("compare", ARRIVAL.toString(), ARRIVAL.toString(), "--fail-on", "any");
    Run drift = Run.of("compare", ARRIVAL.toString(), other.toString(), "--fail-on", "shape");

    assertEquals(0, same.code());
    assertTrue(same.out().startsWith("No changes in"), same.out());
    assertEquals(1, drift.code());
    assertTrue(drift.out().contains("    gone    $.high   "), drift.out());
    assertTrue(drift.out().contains("    new     $.highs  "), drift.out());
    assertEquals(
        0, Run.of("compare", ARRIVAL.toString(), other.toString(), "--ignore-json", "$").code());
  }

  @Test
  void checkHoldsFilesAgainstADescription() throws Exception {
    Files.copy(BERTHS, folder.resolve("berths.openapi.yaml"));
    String cassette =
        Files.readString(ARRIVAL).replace("\\\"draught\\\":4.2", "\\\"draught\\\":42");
    Files.writeString(folder.resolve("deep.har"), cassette);
    Files.copy(Path.of("src/test/stubs/off.stubs.yaml"), folder.resolve("off.stubs.yaml"));

    Run run =
        Run.in(
            folder,
            "check",
            "off.stubs.yaml",
            "deep.har",
            "--openapi",
            "https://berths.example=berths.openapi.yaml");

    assertEquals(1, run.code());
    assertEquals(
        """
        off.stubs.yaml:2:1: "book a berth": body at $.berth: expected type "string" \
        (berths.openapi.yaml:69), actual 12.
        off.stubs.yaml:7:1: "bookings of a day": query date: expected one of day, limit \
        (berths.openapi.yaml:11), actual date.
        off.stubs.yaml:7:1: "bookings of a day": body at $[0]: expected required "from" \
        (berths.openapi.yaml:67), actual missing.
        off.stubs.yaml:11:1: "give it back": path: expected /v1/bookings, /v1/bookings/{berth}, \
        actual /v1/booking/{berth}. Did you mean "/v1/bookings/{berth}"?
        deep.har:218:1: log.entries[3]: POST https://berths.example/v1/bookings: the request \
        violates the API description: body at $.vessel.draught: expected maximum 9.5 \
        (berths.openapi.yaml:64), actual 42.
        """,
        findings(run).limit(5).collect(Collectors.joining("\n", "", "\n")));
  }

  @Test
  void aLongCommandShowsProgressInATerminal() throws Exception {
    StringBuilder many = new StringBuilder("stubs:\n");
    for (int at = 0; at < 30_000; at++) {
      many.append("  - request: GET /")
          .append(at)
          .append("/{day}\n    answer: { json: { n: ")
          .append(at)
          .append(" } }\n");
    }
    Path file = Files.writeString(folder.resolve("many.stubs.yaml"), many);
    String command = String.join(" ", Run.builder("check", file.toString()).command());

    Process process =
        new ProcessBuilder("script", "-qec", command, "/dev/null")
            .redirectErrorStream(true)
            .start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);

    assertEquals(0, process.waitFor(), said);
    assertTrue(said.contains("check: running for 1 s"), said);
    assertTrue(said.contains("1 file checked, no problems found"), said);
  }

  /** Returns the findings without the lines of the files. */
  private static Stream<String> findings(Run run) {
    return run.out().lines().filter(line -> !line.startsWith(" "));
  }

  @Test
  void checkLooksIntoADescription() throws Exception {
    String text = Files.readString(BERTHS);
    Files.writeString(
        folder.resolve("berths.yaml"),
        text.replace("{ berth: B-12,", "{ berth: 12,").replace("schemas/Problem", "schemas/Fault"));

    Run run = Run.in(folder, "check", "berths.yaml");

    assertEquals(1, run.code());
    assertEquals(
        """
        berths.yaml:35:1: /paths/~1bookings/post/responses/201/content/application~1json/example: \
        the example is not valid against its schema at $.berth: expected type "string" \
        (berths.yaml:69), actual 12.
        berths.yaml:40:1: /paths/~1bookings/post/responses/409/content/application~1problem+json\
        /schema: nothing found at "#/components/schemas/Fault". Fix: a reference has a JSON \
        Pointer, such as #/components/schemas/Booking.
        """,
        findings(run).collect(Collectors.joining("\n", "", "\n")));
    assertEquals(0, Run.of("check", BERTHS.toString(), "--json").code());
  }

  @Test
  void checkFindsWhatIsWrongInAnyFile() throws Exception {
    String text = Files.readString(ARRIVAL);
    Path secret = folder.resolve("secret.har");
    Files.writeString(secret, text.replace("{{x-api-key}}", "tk-4711-abcdef"));
    Path damaged = folder.resolve("damaged.har");
    Files.writeString(damaged, text.substring(0, text.length() / 2));
    Path stubs = folder.resolve("twice.stubs.yaml");
    Files.writeString(
        stubs,
        """
        stubs:
          - { name: one, request: GET https://tides.example/v1, answer: 200 }
          - { name: two, request: GET https://tides.example/v1, answer: 200 }
        """);

    Run run =
        Run.in(
            folder,
            "check",
            "secret.har",
            "damaged.har",
            "twice.stubs.yaml",
            "--stale-after",
            "1s");

    assertEquals(1, run.code());
    assertTrue(run.out().contains("secret.har:"), run.out());
    assertTrue(run.out().contains("log.entries[2]: GET https://tides.example/"), run.out());
    assertTrue(run.out().contains("secret.har:1:1: recorded at 2026-"), run.out());
    assertTrue(
        run.out().matches("(?s).*damaged.har:\\d+:1: The cassette .*line \\d+.*"), run.out());
    assertTrue(
        run.out()
            .contains(
                "twice.stubs.yaml:2:1: \"one\" (twice.stubs.yaml:2) is unreachable: \"two\" "
                    + "(twice.stubs.yaml:3) always wins."),
        run.out());
    assertEquals(0, Run.of("check", ARRIVAL.toString()).code());

    Run withMissing = Run.in(folder, "check", "nowhere.har", "twice.stubs.yaml");
    assertEquals(3, withMissing.code());
    assertEquals(
        "cachette: there is no file nowhere.har.\n1 of 2 files checked, 1 finding\n",
        withMissing.err());
    assertTrue(withMissing.out().contains("is unreachable"), withMissing.out());
  }

  @Test
  void redactReplacesSecretsAndLeavesTheRest() throws Exception {
    Path export = folder.resolve("export.har");
    Files.writeString(
        export,
        """
        {"log": {"version": "1.2", "creator": {"name": "somebody", "version": "1"}, "entries": [
          {"startedDateTime": "2031-04-02T04:10:00.000Z", "time": 1, "_initiator": "line 7",
           "request": {"method": "GET", "url": "https://tides.example/v1?api_key=tk-4711-abcdef",
             "httpVersion": "HTTP/1.1",
             "headers": [{"name": "X-Api-Key", "value": "tk-4711-abcdef"}],
             "cookies": [{"name": "desk", "value": "s3cr3t"}],
             "queryString": [{"name": "api_key", "value": "tk-4711-abcdef"}],
             "headersSize": -1, "bodySize": 0},
           "response": {"status": 200, "statusText": "OK", "httpVersion": "HTTP/1.1",
             "headers": [], "cookies": [],
             "content": {"size": 40, "mimeType": "application/json", "_note": "kept",
               "text": "{\\"password\\": \\"low water\\", \\"desk\\": \\"north\\"}"},
             "redirectURL": "", "headersSize": -1, "bodySize": -1},
           "cache": {}, "timings": {"send": 0, "wait": 1, "receive": 0},
           "_trace": "called with tk-4711-abcdef"}]}}
        """);

    Run run = Run.in(folder, "redact", "export.har", "--to", "clean.har");

    assertEquals("export.har: redacted secrets in 1 of 1 exchanges\n", run.out());
    String clean = Files.readString(folder.resolve("clean.har"));
    for (String secret : List.of("tk-4711", "s3cr3t", "low water")) {
      assertFalse(clean.contains(secret), clean);
    }
    for (String kept : List.of("\"line 7\"", "\"_note\": \"kept\"", "called with {{", "north")) {
      assertTrue(clean.contains(kept), clean);
    }
    assertTrue(Files.readString(export).contains("tk-4711"));
    assertEquals(0, Run.in(folder, "check", "clean.har").code());
  }

  @Test
  void redactFindsASecretInExchangesBeforeTheOneThatRevealsIt() throws Exception {
    String entry =
        """
        {"startedDateTime": "2031-04-02T04:10:00.000Z", "time": 1,
         "request": {"method": "GET", "url": "https://tides.example/v1/%d",
           "httpVersion": "HTTP/1.1", "headers": [%s], "cookies": [], "queryString": []},
         "response": {"status": 200, "statusText": "OK", "httpVersion": "HTTP/1.1",
           "headers": [], "cookies": [],
           "content": {"mimeType": "text/plain", "text": "%s"}}}\
        """;
    String key = "{\"name\": \"x-api-key\", \"value\": \"lowwaterdesk\"}";
    for (int revealing : List.of(0, 1, 49, 99)) {
      List<String> entries =
          IntStream.range(0, 100)
              .mapToObj(
                  at ->
                      String.format(
                          entry, at, at == revealing ? key : "", at % 7 < 2 ? "lowwaterdesk" : ""))
              .toList();
      Files.writeString(
          folder.resolve("export.har"),
          "{\"log\": {\"version\": \"1.2\", \"creator\": {}, \"entries\": " + entries + "}}");

      Run run = Run.in(folder, "redact", "export.har", "--to", "clean.har");

      assertEquals(0, run.code(), run.err());
      assertFalse(Files.readString(folder.resolve("clean.har")).contains("lowwater"), run::out);
      assertEquals(
          Run.in(folder, "check", "export.har")
              .out()
              .lines()
              .filter(it -> !it.startsWith(" "))
              .count(),
          Integer.parseInt(run.out().replaceAll(".*in (\\d+) of 100.*\n", "$1")));
      assertEquals(0, Run.in(folder, "check", "clean.har").code());
    }
  }

  @Test
  void refreshSendsTheRequestsAgainAndWritesOnDemand() throws Exception {
    try (Cachette service =
        Cachette.open(Settings.defaults().withoutInterception().unusedStubs(UnusedStubs.IGNORE))) {
      service.stub("GET /v1/tides").answer(Answers.json("{\"high\":\"04:10\"}"));
      Path cassette = folder.resolve("tides.har");
      Run recorded =
          Run.of(
              "record",
              "--to",
              cassette.toString(),
              "--ca",
              authority(),
              "--",
              "curl",
              "-s",
              "-H",
              "x-api-key: tk-4711-abcdef",
              service.baseUrl() + "/v1/tides");
      assertEquals("{\"high\":\"04:10\"}", recorded.out(), recorded.err());
      assertFalse(Files.readString(cassette).contains("tk-4711"));
      assertFalse(
          Files.readString(cassette).contains("content-length"), "curl has sent no such header");
      service.stub("GET /v1/tides").answer(Answers.json("{\"high\":null}"));

      Run blind = Run.of("refresh", cassette.toString());
      assertEquals(3, blind.code());
      assertTrue(blind.err().contains("Fix: --secret x-api-key="), blind.err());

      Run refreshed =
          Run.of(
              "refresh",
              cassette.toString(),
              "--secret",
              "x-api-key=tk-4711-abcdef",
              "--fail-on",
              "shape",
              "--write");
      assertEquals(1, refreshed.code(), refreshed.err());
      assertTrue(refreshed.out().contains("$.high"), refreshed.out());
      assertTrue(Files.readString(cassette).contains("null"));
      assertFalse(Files.readString(cassette).contains("tk-4711"));
    }
  }

  private String authority() {
    return folder.resolve("authority.pem").toString();
  }

  @Test
  void convertMakesStubsThatAnswerLikeTheCassette() throws Exception {
    Path stubs = folder.resolve("arrival.stubs.yaml");
    Run run = Run.of("convert", ARRIVAL.toString(), "--to", stubs.toString());

    assertEquals(0, run.code(), run.err());
    assertTrue(run.err().contains("{{access_token}} is a placeholder for a secret"), run.err());
    assertEquals(0, Run.of("check", stubs.toString()).code());
    assertTrue(Files.readString(stubs).contains("answers:\n      - status: 503"));
    assertEquals(Files.readString(stubs), Run.of("convert", ARRIVAL.toString()).out());
    assertEquals(2, Run.of("convert", ARRIVAL.toString(), "--to", ARRIVAL.toString()).code());
    Set<PosixFilePermission> ours = PosixFilePermissions.fromString("rw-r-----");
    Files.setPosixFilePermissions(stubs, ours);
    Path link = Files.createSymbolicLink(folder.resolve("link.yaml"), stubs);
    assertEquals(0, Run.of("convert", ARRIVAL.toString(), "--to", link.toString()).code());
    assertTrue(Files.isSymbolicLink(link));
    assertEquals(ours, Files.getPosixFilePermissions(stubs));

    Run json = Run.of("convert", ARRIVAL.toString(), "--to", folder.resolve("a.json").toString());
    assertEquals(0, json.code(), json.err());
    JsonNode file = new ObjectMapper().readTree(folder.resolve("a.json").toFile());
    assertEquals(503, file.at("/stubs/3/answers/0/status").intValue(), file.toString());
    assertEquals(
        file,
        new ObjectMapper().readTree(Run.of("convert", ARRIVAL.toString(), "--json", "-q").out()));

    Run back = Run.in(folder, "convert", "arrival.stubs.yaml", "--to", "back.har", "-q");
    assertEquals(0, back.code(), back.err());
    Run shown = Run.in(folder, "show", "back.har", "--text", "B-12");
    assertTrue(
        shown.out().contains("POST    https://berths.example/v1/bookings  201"), shown.out());
  }

  @Test
  void convertMakesStubsOfCommandsAndLines() throws Exception {
    Files.writeString(
        folder.resolve("calls.txt"),
        """
        # what the desk calls
        GET https://tides.example/v1/tides?day=2031-04-02
        04:10:00 INFO POST https://berths.example/v1/bookings 201
        curl -X PUT -H 'X-Desk: north' --data '{"draught": 4.2}' \\
          "https://berths.example/v1/bookings/7"
        curl 'https://tides.example/unclosed
        nothing
        """);

    Run run = Run.in(folder, "convert", "calls.txt");

    assertEquals(
        """
        stubs:
          - request: GET https://tides.example/v1/tides
            query:
              day: '2031-04-02'
            answer:
              status: 200
          - request: POST https://berths.example/v1/bookings
            answer:
              status: 200
          - request: PUT https://berths.example/v1/bookings/7
            headers:
              x-desk: north
            body:
              sameJson:
                draught: 4.2
            answer:
              status: 200
        """,
        run.out());
    assertTrue(run.err().contains("skipped, line 6: the quote ' is not closed"), run.err());
    assertTrue(run.err().contains("skipped, line 7: expected METHOD URL"), run.err());
  }

  @Test
  void convertMakesJavaThatCompiles() throws Exception {
    Run run = Run.of("convert", ARRIVAL.toString(), "--format", "java");

    Path source = folder.resolve("Made.java");
    Files.writeString(
        source,
        "import dev.cachette.Cachette;\nimport dev.cachette.answer.*;\n"
            + "class Made {\n  void stubs(Cachette net) {\n"
            + run.out()
            + "  }\n}\n");
    int compiled =
        ToolProvider.getSystemJavaCompiler()
            .run(
                null,
                null,
                null,
                "-proc:none",
                "-cp",
                "target/cachette-cli.jar",
                "-d",
                folder.toString(),
                source.toString());
    assertEquals(0, compiled, run.out());
  }
}
