// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.classpath;
import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.file;
import static dev.cachette.answer.Answers.form;
import static dev.cachette.answer.Answers.html;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.problem;
import static dev.cachette.answer.Answers.redirect;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.template;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Answers.xml;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Answer;
import dev.cachette.match.Conditions;
import dev.cachette.match.Values;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import java.util.zip.InflaterInputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.opentest4j.AssertionFailedError;

/** Answers as callers get them, with a real client. */
class AnswersTest {

  private static final String URL = "https://tides.example/v1/tides";

  private final TestClock clock = TestClock.stoppedAt(Instant.parse("2031-04-02T12:00:00Z"));
  private final HttpClient client = HttpClient.newHttpClient();
  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open(Settings.defaults().clock(clock).seed(7).unusedStubs(UnusedStubs.IGNORE));
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void bodiesOfEveryKindHaveTheirType() throws Exception {
    assertAnswer(json("[1]"), "application/json", "[1]");
    assertAnswer(xml("<tide/>"), "application/xml; charset=utf-8", "<tide/>");
    assertAnswer(html("<p>\u00fa"), "text/html; charset=utf-8", "<p>\u00fa");
    assertAnswer(
        form(Map.of("a b", "\u00fa&")), "application/x-www-form-urlencoded", "a+b=%C3%BA%26");
    assertAnswer(
        text("\u00fa").charset(StandardCharsets.ISO_8859_1),
        "text/plain; charset=ISO-8859-1",
        "\u00fa");
    assertThrows(IllegalArgumentException.class, () -> xml("<tide>"));
    assertThrows(IllegalStateException.class, () -> status(200).charset(StandardCharsets.UTF_8));
  }

  @Test
  void problemsAndRedirects() throws Exception {
    answer(problem(409, "Berth taken", Map.of("detail", "B-12 is Skua's")), redirect("/v2"));

    HttpResponse<String> problem = get();
    HttpResponse<String> redirect = get();

    assertEquals(409, problem.statusCode());
    assertEquals("application/problem+json", header(problem, "content-type"));
    assertEquals(
        "{\"title\":\"Berth taken\",\"status\":409,\"detail\":\"B-12 is Skua's\"}", problem.body());
    assertEquals(302, redirect.statusCode());
    assertEquals("/v2", header(redirect, "location"));
  }

  @Test
  void filesAndResources(@TempDir Path folder) throws Exception {
    Path tides = Files.writeString(folder.resolve("tides.json"), "{\"high\":\"04:10\"}");
    answer(file(tides.toString()), classpath("/harbour/tides.json").status(203));

    HttpResponse<String> fromFile = get();
    HttpResponse<String> fromClassPath = get();

    assertEquals("{\"high\":\"04:10\"}", fromFile.body());
    assertEquals("application/json", header(fromFile, "content-type"));
    assertEquals(203, fromClassPath.statusCode());
    assertTrue(fromClassPath.body().contains("16:35"), fromClassPath.body());
    UnansweredStub stub = net.stub("GET /other");
    var noFile =
        assertThrows(
            IllegalArgumentException.class,
            () -> stub.answer(file(folder.resolve("tide.json").toString())));
    assertTrue(noFile.getMessage().contains("did you mean \"tides.json\"?"), noFile::getMessage);
    var noResource =
        assertThrows(IllegalArgumentException.class, () -> stub.answer(classpath("no.json")));
    assertTrue(noResource.getMessage().contains("no resource \"no.json\""));
    stub.answer(status(204));
  }

  @Test
  void headersAndCookiesInOrder() throws Exception {
    answer(
        status(204)
            .header("x-tide", "high", "low")
            .cookie("desk", "north", "Path=/", "HttpOnly")
            .cookie("berth", "12"));

    HttpResponse<String> response = get();

    assertEquals(List.of("high", "low"), response.headers().allValues("x-tide"));
    assertEquals(
        List.of("desk=north; Path=/; HttpOnly", "berth=12"),
        response.headers().allValues("set-cookie"));
    assertThrows(IllegalArgumentException.class, () -> status(204).cookie("a b", "x"));
    assertThrows(IllegalArgumentException.class, () -> status(204).cookie("a", "x;y"));
    assertThrows(IllegalArgumentException.class, () -> status(204).cookie("a", "x", "b;c"));
  }

  @Test
  void conditionalRequests() throws Exception {
    String date = "Wed, 02 Apr 2031 12:00:00 GMT";
    answer(
        json("[1]").etag("v1").header("last-modified", date).header("cache-control", "no-cache"));

    assertEquals(200, get().statusCode());
    HttpResponse<String> known = get("if-none-match", "\"v0\", W/\"v1\"");
    assertEquals(304, known.statusCode());
    assertEquals("", known.body());
    assertEquals("\"v1\"", header(known, "etag"));
    assertEquals("no-cache", header(known, "cache-control"));
    assertEquals(200, get("if-none-match", "\"v2\"").statusCode());
    assertEquals(304, get("if-modified-since", date).statusCode());
    assertEquals(200, get("if-modified-since", "Tue, 01 Apr 2031 12:00:00 GMT").statusCode());
    assertEquals(200, get("if-modified-since", "yesterday").statusCode());
    assertEquals(412, get("if-match", "\"v2\"").statusCode());
    assertEquals(200, get("if-match", "\"v1\"").statusCode());
    assertEquals(412, get("if-unmodified-since", "Tue, 01 Apr 2031 12:00:00 GMT").statusCode());
  }

  /** The tag of a response to PUT is the new one, the precondition is about the old one. */
  @Test
  void preconditionsOfChangesAreUpToTheStub() throws Exception {
    net.stub("PUT " + URL + "/fixed").answer(json("[2]").etag("v2"));
    net.stub("PUT " + URL + "/computed").answer(computed(call -> json("[2]").etag("v2")));
    net.stub("GET " + URL + "/computed").answer(computed(call -> json("[2]").etag("v2")));

    assertEquals(200, conditional("PUT", "/fixed", "if-match", "\"v1\""));
    assertEquals(200, conditional("PUT", "/fixed", "if-none-match", "*"));
    assertEquals(200, conditional("PUT", "/computed", "if-match", "\"v1\""));
    assertEquals(200, conditional("PUT", "/computed", "if-none-match", "*"));
    assertEquals(412, conditional("GET", "/computed", "if-match", "\"v1\""));
    assertEquals(304, conditional("GET", "/computed", "if-none-match", "\"v2\""));
  }

  private int conditional(String method, String path, String... header) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(URL + path))
            .method(method, BodyPublishers.ofString("[2]"))
            .headers(header)
            .build();
    return client.send(request, BodyHandlers.ofString()).statusCode();
  }

  @Test
  void rangesOfBytes() throws Exception {
    answer(bytes("0123456789".getBytes(StandardCharsets.UTF_8)).ranges().etag("v1"));

    HttpResponse<String> part = get("range", "bytes=2-4");
    assertEquals(206, part.statusCode());
    assertEquals("234", part.body());
    assertEquals("bytes 2-4/10", header(part, "content-range"));
    assertEquals("789", get("range", "bytes=-3").body());
    assertEquals("89", get("range", "bytes=8-").body());
    assertEquals("89", get("range", "bytes=8-99").body());
    HttpResponse<String> beyond = get("range", "bytes=10-");
    assertEquals(416, beyond.statusCode());
    assertEquals("bytes */10", header(beyond, "content-range"));
    assertEquals(200, get("range", "bytes=4-2").statusCode());
    assertEquals(200, get("range", "bytes=0-1,4-5").statusCode());
    assertEquals("bytes", header(get(), "accept-ranges"));
    assertEquals(206, get("range", "bytes=0-1", "if-range", "\"v1\"").statusCode());
    assertEquals(200, get("range", "bytes=0-1", "if-range", "\"v0\"").statusCode());
  }

  @Test
  void headIsGetWithoutTheBody() throws Exception {
    answer(text("tides").header("x-desk", "7"));
    HttpRequest head =
        HttpRequest.newBuilder(URI.create(URL)).method("HEAD", BodyPublishers.noBody()).build();

    HttpResponse<String> response = Calling.send(client, head);

    assertEquals("", response.body());
    assertEquals("5", header(response, "content-length"));
    assertEquals("7", header(response, "x-desk"));
    assertEquals("HEAD", net.calls().only().method());
    net.stub("HEAD " + URL).answer(status(204));
    assertEquals(204, Calling.send(client, head).statusCode());
  }

  @Test
  void contentEncodingsOnDemandAndNegotiated() throws Exception {
    answer(text("tide").gzip(), text("tide").deflate(), text("tide").compressed());

    HttpResponse<byte[]> gzip = getBytes();
    assertEquals("gzip", gzip.headers().firstValue("content-encoding").orElseThrow());
    assertEquals("tide", gunzip(gzip.body()));
    HttpResponse<byte[]> deflate = getBytes();
    assertEquals(
        "tide",
        new String(
            new InflaterInputStream(new ByteArrayInputStream(deflate.body())).readAllBytes(),
            StandardCharsets.UTF_8));
    HttpResponse<byte[]> plain = getBytes();
    assertTrue(plain.headers().firstValue("content-encoding").isEmpty());
    assertEquals("accept-encoding", plain.headers().firstValue("vary").orElseThrow());
    HttpResponse<byte[]> best = getBytes("accept-encoding", "gzip;q=0.2, deflate;q=0.9, br");
    assertEquals("deflate", best.headers().firstValue("content-encoding").orElseThrow());
    HttpResponse<byte[]> refused = getBytes("accept-encoding", "gzip;q=0");
    assertTrue(refused.headers().firstValue("content-encoding").isEmpty());
  }

  @Test
  void trailersFollowTheBody() throws Exception {
    net.stub("GET http://tides.example/").answer(text("tide").trailer("x-sum", "42"));

    String raw =
        Calling.raw("tides.example", 80, "GET / HTTP/1.1\r\nhost: x\r\nconnection: close\r\n\r\n");

    assertTrue(raw.toLowerCase().contains("transfer-encoding: chunked"), raw);
    assertTrue(raw.contains("trailer: x-sum"), raw);
    assertTrue(raw.endsWith("0\r\nx-sum: 42\r\n\r\n"), raw);
  }

  @Test
  void computedFromTheRequest() throws Exception {
    net.stub("POST https://berths.example/v1/{what}")
        .answer(
            computed(
                received ->
                    json(Map.of(received.variable("what"), received.json().path("nights").asInt()))
                        .status(201)));

    HttpResponse<String> response =
        Calling.post("https://berths.example/v1/bookings", "{\"nights\":3}");

    assertEquals(201, response.statusCode());
    assertEquals("{\"bookings\":3}", response.body());
  }

  @Test
  void aComputedAnswerMayCallOthersItself() throws Exception {
    net.stub("GET https://a.example/").answer(text("from a"));
    answer(
        computed(
            received -> {
              try {
                return text(Calling.get("https://a.example/").body() + ", by tides");
              } catch (IOException | InterruptedException failed) {
                throw new IllegalStateException(failed);
              }
            }));

    assertEquals("from a, by tides", get().body());
  }

  @Test
  void anExceptionOfAFunctionFailsTheTest() throws Exception {
    IllegalStateException mistake = new IllegalStateException("no such tide");
    Cachette.Scope test = net.scope();
    net.stub("GET " + URL)
        .named("tides")
        .answer(
            computed(
                received -> {
                  throw mistake;
                }));

    HttpResponse<String> response = get();

    assertEquals(500, response.statusCode());
    assertTrue(response.body().contains("IllegalStateException: no such tide"), response.body());
    var failure = assertThrows(AssertionFailedError.class, test::close);
    assertEquals(mistake, failure.getCause());
    assertTrue(
        failure.getMessage().startsWith("The stub \"tides\" (AnswersTest.java:"),
        failure::getMessage);
  }

  @Test
  void checksInAStubFailTheTestWhateverTheCallerDoes() throws Exception {
    Cachette.Scope test = net.scope();
    net.stub("GET " + URL)
        .check(Conditions.query("day", Values.present()))
        .check(received -> assertEquals("north", received.header("x-desk").orElse("none")))
        .answer(text("tide"));

    assertEquals(200, get("?day=2", "x-desk", "north").statusCode());
    assertEquals(500, get("", "x-desk", "north").statusCode());
    assertEquals(500, get("?day=2").statusCode());

    var failure = assertThrows(AssertionFailedError.class, test::close);
    assertTrue(failure.getMessage().contains("NO   query day   expected  any value"));
    assertTrue(failure.getSuppressed()[0].getMessage().contains("expected: <north>"));
  }

  @Test
  void templatesAreFilledFromTheRequest() throws Exception {
    net.stub("POST https://tides.example/v1/{station}")
        .answer(
            template(
                    "application/json",
                    """
                    {"station": "${path.station}", "day": "${query.day:-today}", \
                    "desk": "${header.x-desk}",
                     "vessel": "${json./vessel/name}", "draught": ${json.$.vessel.draught},
                     "call": ${count}, "booking": "B-${counter.bookings}", "at": "${now+PT2H}",
                     "due": "${today+P1M}", "die": ${random.1..6}, "as it is": "$${now}"}\
                    """)
                .status(201)
                .header("location", "/v1/${path.station}"));
    String body = "{\"vessel\":{\"name\":\"The \\\"Kitti\\\" ${now}\",\"draught\":4.20}}";
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("https://tides.example/v1/marrow%20bay"))
            .header("x-desk", "7")
            .POST(BodyPublishers.ofString(body))
            .build();

    HttpResponse<String> first = Calling.send(client, request);
    clock.advance(Duration.ofDays(1));
    HttpResponse<String> second = Calling.send(client, request);

    String expected =
        "{\"station\": \"marrow bay\", \"day\": \"today\", \"desk\": \"7\",\n"
            + " \"vessel\": \"The \\\"Kitti\\\" ${now}\", \"draught\": 4.20,\n"
            + " \"call\": 1, \"booking\": \"B-1\", \"at\": \"2031-04-02T14:00:00Z\",\n"
            + " \"due\": \"2031-05-02\", \"die\": ";
    assertTrue(first.body().startsWith(expected), first.body());
    assertTrue(first.body().endsWith(", \"as it is\": \"${now}\"}"), first.body());
    assertEquals("/v1/marrow bay", header(first, "location"));
    assertTrue(second.body().contains("\"call\": 2, \"booking\": \"B-2\""), second.body());
    assertTrue(second.body().contains("2031-05-03"), second.body());
  }

  @Test
  void aTemplateThatCannotBeFilledFailsTheTest() throws Exception {
    Cachette.Scope test = net.scope();
    net.stub("GET " + URL).answer(template("text/plain", "${query.day}"));

    assertEquals(500, get().statusCode());

    var failure = assertThrows(AssertionFailedError.class, test::close);
    assertTrue(failure.getMessage().contains("needs ${query.day}"), failure::getMessage);
    for (String wrong : List.of("${}", "${qery.day}", "${query}", "${now+2h}", "${random.9..1}")) {
      assertThrows(IllegalArgumentException.class, () -> template("text/plain", wrong), wrong);
    }
  }

  private void assertAnswer(Answer answer, String type, String body) throws Exception {
    try (Cachette.Scope scope = net.scope()) {
      answer(answer);
      HttpResponse<String> response = get();
      assertEquals(type, header(response, "content-type"));
      assertEquals(body, response.body());
    }
  }

  private void answer(Answer first, Answer... more) {
    net.stub("GET " + URL).answer(first, more);
  }

  /** Returns a call with these headers; what begins with a question mark is the query. */
  private HttpResponse<String> get(String... parts) throws Exception {
    return client.send(request(parts), BodyHandlers.ofString());
  }

  private HttpResponse<byte[]> getBytes(String... parts) throws Exception {
    return client.send(request(parts), BodyHandlers.ofByteArray());
  }

  private static HttpRequest request(String... parts) {
    boolean query = parts.length % 2 == 1;
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(URL + (query ? parts[0] : "")));
    for (int at = query ? 1 : 0; at < parts.length; at += 2) {
      request.header(parts[at], parts[at + 1]);
    }
    return request.build();
  }

  private static String header(HttpResponse<?> response, String name) {
    return response.headers().firstValue(name).orElseThrow();
  }

  private static String gunzip(byte[] bytes) throws IOException {
    return new String(
        new GZIPInputStream(new ByteArrayInputStream(bytes)).readAllBytes(),
        StandardCharsets.UTF_8);
  }
}
