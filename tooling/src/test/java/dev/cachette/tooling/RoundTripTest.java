// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A stub file, a cassette made of it, and a stub file made of that. */
class RoundTripTest {

  @TempDir Path folder;

  private final List<String> remarks = new ArrayList<>();
  private final Set<String> placeholders = new TreeSet<>();

  private String stubsOf(String cassette, StubFormat format) {
    Path file = folder.resolve(cassette);
    try (CassetteOnDisk open = new CassetteOnDisk(file, Assertions::fail);
        CassetteConversion conversion = CassetteConversion.of(open)) {
      return String.join("", conversion.toStubs(format, placeholders, remarks::add));
    }
  }

  private JsonNode stubs(String cassette) throws Exception {
    return new ObjectMapper().readTree(stubsOf(cassette, StubFormat.JSON)).path("stubs");
  }

  private int toCassette(String stubs, String cassette) {
    return StubFileConversion.toCassette(
        folder.resolve(stubs), folder.resolve(cassette), remarks::add);
  }

  private List<Finding> check(String file) {
    return FileCheck.defaults().of(folder.resolve(file), Assertions::fail);
  }

  @Test
  void whatACassetteCanExpressComesBackUnchanged() throws Exception {
    Files.writeString(folder.resolve("plan.bin"), "plan");
    String stubs =
        """
        {"stubs": [
          {"request": "GET https://tides.example/v1/tides", "query": {"day": "1", "unit": "m"},
           "answer": {"json": {"high": ["04:10"]}}},
          {"request": "POST https://berths.example/v1/bookings",
           "body": {"sameJson": {"vessel": {"name": "Kittiwake", "draught": 4.20}}},
           "answers": [{"status": 503, "headers": {"retry-after": "1"}},
                       {"status": 201, "json": {"berth": "B-12"}}]},
          {"request": "POST https://berths.example/v1/bookings",
           "body": {"sameJson": {"vessel": {"name": "Fulmar"}}},
           "answer": {"status": 409}},
          {"request": "POST https://berths.example/v1/form",
           "form": {"day": "1", "slot": {"list": ["a b", "ü&="]}},
           "answer": {"text": "booked"}},
          {"request": "POST https://customs.example/v1/xml", "body": {"sameXml": "<a><b/></a>"},
           "answer": {"xml": "<ok/>"}},
          {"request": "PUT https://berths.example/v1/note", "body": {"sameText": "a note"},
           "answer": {"status": 204}},
          {"request": "PUT https://berths.example/v1/plan", "body": {"sameBytes": "/wAB"},
           "answer": {"base64": "/wAC"}},
          {"request": "GET https://tides.example/v1/reset", "answer": "connectionReset"},
          {"request": "GET https://tides.example/v1/hang", "answer": "noResponse"}
        ]}
        """;
    Files.writeString(folder.resolve("all.stubs.json"), stubs);

    assertEquals(10, toCassette("all.stubs.json", "all.har"));
    assertEquals(List.of(), remarks);
    assertEquals(List.of(), check("all.har"));
    JsonNode back = stubs("all.har");

    assertEquals(new ObjectMapper().readTree(stubs).path("stubs"), back);
    Files.writeString(folder.resolve("back.stubs.yaml"), stubsOf("all.har", StubFormat.YAML));
    assertEquals(List.of(), check("back.stubs.yaml"));
  }

  @Test
  void filesAndPathValuesBecomeWhatTheyStandFor() throws Exception {
    Files.writeString(folder.resolve("booking.json"), "{\"berth\":\"B-12\"}");
    Files.writeString(
        folder.resolve("files.stubs.yaml"),
        """
        stubs:
          - request: GET https://berths.example/v1/bookings/{id}
            path: { id: "7 a" }
            answer: { file: booking.json }
        """);
    assertEquals(1, toCassette("files.stubs.yaml", "files.har"));
    JsonNode back = stubs("files.har").get(0);
    assertEquals("GET https://berths.example/v1/bookings/7%20a", back.path("request").textValue());
    assertEquals("B-12", back.at("/answer/json/berth").textValue(), back.toString());
  }

  @Test
  void whatItCannotExpressIsNamed() throws Exception {
    Files.writeString(
        folder.resolve("many.stubs.yaml"),
        """
        stubs:
          - { name: a, request: "GET https://tides.example/v1/{station}", answer: { status: 200 } }
          - { name: b, request: "GET /v1/tides", answer: { status: 200 } }
          - { name: c, request: "* https://tides.example/v1/c", answer: { status: 200 } }
          - name: d
            request: POST https://berths.example/v1/d
            json: { $.draught: { atMost: 4 } }
            answer: { status: 200 }
          - name: e
            request: GET https://tides.example/v1/e
            query: { day: { pattern: '\\d' } }
            answer: { status: 200 }
          - name: f
            request: GET https://tides.example/v1/f
            headers: { x-desk: north }
            times: 2
            answer: { status: 200, delay: 1 s }
          - name: g
            request: GET https://tides.example/v1/g
            answer: { text: "${query.day}" }
          - name: h
            request: GET https://tides.example/v1/h
            answers: [ { fault: truncated, bytes: 2, text: high }, { status: 200 } ]
          - { name: i, request: GET https://tides.example/v1/i, answer: { realService: true } }
        """);
    int written = toCassette("many.stubs.yaml", "many.har");
    String said = String.join("\n", remarks).replaceAll(" \\([^)]*many[^)]*\\)", "");
    assertEquals(
        """
        skipped, because its URL matches many: "a"
        skipped, because its URL matches many: "b"
        skipped, because its request line has no method: "c"
        skipped, because its condition json matches many bodies: "d"
        skipped, because its query day matches many values: "e"
        not kept: the delay of an answer, in "f"
        not kept, because a cassette cannot express it: the header x-desk, "times", in "f"
        skipped, because a cassette cannot express it: a template, in "g"
        skipped, because a cassette cannot express it: truncated, in "h"
        skipped, because a cassette cannot express it: the answer of the real service, in "i"
        """,
        said + "\n");
    assertEquals(2, written);
  }

  /** Returns an entry of a HAR file. */
  private static String entry(String method, String url, String type, String body, int status) {
    return String.format(
        """
        {"startedDateTime": "2031-04-02T04:10:00.000Z", "time": 1,
         "request": {"method": "%s", "url": "%s", "httpVersion": "HTTP/1.1", "cookies": [],
           "headers": [{"name": "content-type", "value": "%s"}], "queryString": [],
           "postData": {"mimeType": "", "text": "%s"}, "headersSize": -1, "bodySize": -1},
         "response": {"status": %d, "statusText": "", "httpVersion": "HTTP/1.1", "cookies": [],
           "headers": [], "content": {"size": 0, "mimeType": ""}, "redirectURL": "",
           "headersSize": -1, "bodySize": -1},
         "cache": {}, "timings": {"send": 0, "wait": 1, "receive": 0}}
        """,
        method, url, type, body, status);
  }

  private static String oddities() {
    String parts =
        "--x\\r\\nContent-Disposition: form-data; name=\\\"plan\\\"; filename=\\\"p.txt\\\"\\r\\n"
            + "Content-Type: text/plain\\r\\n\\r\\nline\\r\\n--x--\\r\\n";
    String json = "{\\\"user\\\": \\\"mara\\\", \\\"keys\\\": [\\\"{{password}}\\\"]}";
    return String.join(
        ",",
        entry("GET", "https://pilots.example/socket", "", "", 101),
        entry("POST", "https://id.example/token", "application/json", json, 200),
        entry("POST", "https://id.example/text", "text/plain", "it is {{secret}}", 200),
        entry("POST", "https://berths.example/plan", "multipart/form-data; boundary=x", parts, 200),
        entry("GET", "https://berths.example/none", "", "", 0));
  }

  @Test
  void whatAStubCannotExpressIsNamed() throws Exception {
    Files.writeString(
        folder.resolve("odd.har"),
        "{\"log\": {\"version\": \"1.2\", \"creator\": {\"name\": \"a\", \"version\": \"1\"},"
            + " \"entries\": ["
            + oddities()
            + "]}}");

    String back = stubsOf("odd.har", StubFormat.YAML);

    assertEquals(
        """
        stubs:
          - request: POST https://id.example/token
            body:
              sameJson:
                user: mara
                keys:
                  - '{{password}}'
              ignoring:
                - $.keys[0]
            answer:
              status: 200
          - request: POST https://id.example/text
            answer:
              status: 200
          - request: POST https://berths.example/plan
            parts:
              plan:
                fileName: p.txt
                contentType: text/plain
                content:
                  body:
                    sameText: line
            answer:
              status: 200
        """,
        back);
    assertEquals(Set.of("password"), placeholders);
    String said = String.join("\n", remarks);
    assertTrue(said.contains("skipped, because a stub cannot answer with this status, such"));
    assertTrue(said.contains("not compared, because its body has a placeholder for a secret"));
    assertTrue(said.contains("skipped, because it has no answer: GET https://berths"));
  }
}
