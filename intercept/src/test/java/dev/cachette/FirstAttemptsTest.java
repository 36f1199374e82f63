// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.Factories.bytes;
import static dev.cachette.Factories.computed;
import static dev.cachette.Factories.contains;
import static dev.cachette.Factories.file;
import static dev.cachette.Factories.json;
import static dev.cachette.Factories.status;
import static dev.cachette.Factories.template;
import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Calls that a new user writes without having read about them. */
class FirstAttemptsTest {

  private static final String URL = "https://berths.example/v1/bookings";

  private final Cachette net =
      Cachette.open(
          Settings.defaults()
              .unexpectedCalls(UnexpectedCalls.WARN)
              .unusedStubs(UnusedStubs.IGNORE));
  private final HttpClient client = HttpClient.newHttpClient();

  private record Booking(String berth, LocalDate day) {}

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void matchesWholeJsonBodies() throws Exception {
    net.stub("POST " + URL)
        .json(new Booking("B-12", LocalDate.of(2031, 4, 2)))
        .answer(text("object"));
    net.stub("POST " + URL).json("{\"berth\": \"B-7\"}").answer(text("text"));

    assertEquals("object", post("{\"day\":\"2031-04-02\",\"berth\":\"B-12\"}").body());
    assertEquals("text", post("{\"berth\":\"B-7\"}").body());
    assertEquals(501, post("{\"berth\":\"B-7\",\"day\":\"2031-04-02\"}").statusCode());
  }

  @Test
  void matchesTheTextOfBodies() throws Exception {
    net.stub("POST " + URL).body(contains("ell")).answer(text("part"));
    net.stub("POST " + URL).body("hello").answer(json("{}").contentType("application/vnd.a+json"));

    HttpResponse<String> whole = post("hello");
    assertEquals(
        "application/vnd.a+json", whole.headers().firstValue("content-type").orElseThrow());
    assertEquals("part", post("jelly").body());
  }

  @Test
  void matchesSoapByNamespaceAndElement() throws Exception {
    net.stub("POST " + URL).soap("urn:customs", "Declare").answer(text("declared"));
    String envelope =
        "<s:Envelope xmlns:s='http://schemas.xmlsoap.org/soap/envelope/'><s:Body>"
            + "<c:Declare xmlns:c='%s'/></s:Body></s:Envelope>";

    assertEquals("declared", post(envelope.formatted("urn:customs")).body());
    assertEquals(501, post(envelope.formatted("urn:other")).statusCode());
  }

  @Test
  void takesPathsForFiles(@TempDir Path folder) throws Exception {
    Path booking = Files.writeString(folder.resolve("booking.json"), "{\"berth\":\"B-12\"}");
    Path saved = folder.resolve("saved.bin");
    net.stub("POST " + URL).saveBodyTo(saved).answer(file(booking), status(409).file(booking));

    HttpResponse<String> first = post("a manifest");
    assertEquals("{\"berth\":\"B-12\"}", first.body());
    assertEquals("application/json", first.headers().firstValue("content-type").orElseThrow());
    assertEquals("a manifest", Files.readString(saved));
    assertEquals(409, post("").statusCode());
    assertEquals("", Files.readString(saved));
    assertThrows(IllegalArgumentException.class, () -> file((Path) null));
  }

  @Test
  void givesBytesAContentType() throws Exception {
    byte[] chart = {1, 2, 3};
    net.stub("POST " + URL).answer(bytes("image/png", chart), status(410).bytes("a/b", chart));

    assertEquals("image/png", post("").headers().firstValue("content-type").orElseThrow());
    assertEquals("a/b", post("").headers().firstValue("content-type").orElseThrow());
  }

  @Test
  void namesAStubAfterItsAnswer() throws Exception {
    Stub stub = net.stub("POST " + URL).answer(status(201)).named("book a berth");

    post("{}");

    assertEquals("book a berth", net.calls().only().stub().orElseThrow().name());
    stub.calls().assertCount(1);
    IllegalStateException late =
        assertThrows(IllegalStateException.class, () -> stub.named("another"));
    assertTrue(late.getMessage().contains("has answered calls by this name"), late::getMessage);
    stub.calls().assertCount(1);
  }

  @Test
  void overridesBeforeOrAfterTheAnswer() throws Exception {
    net.stub("POST https://berths.example/{+rest}").overriding().answer(text("wide")).times(1);
    net.stub("POST https://{host}.example/{+rest}").answer(text("wider")).overriding().times(1);
    net.stub("POST " + URL).answer(text("narrow"));

    assertEquals(
        List.of("wide", "wider", "narrow"),
        List.of(post("").body(), post("").body(), post("").body()));
  }

  @Test
  void computesFromOneValueOfTheRequest() throws Exception {
    net.stub("POST " + URL)
        .answer(
            computed(
                received ->
                    json(
                        Map.of(
                            "nights",
                            received.json("$.nights").asInt() + 1,
                            "tags",
                            received.json("$.tags[*]")))));

    assertTrue(post("{\"nights\":2,\"tags\":[\"a\",\"b\"]}").body().contains("\"nights\":3"));
    assertTrue(post("{\"nights\":2,\"tags\":[\"a\",\"b\"]}").body().contains("[\"a\",\"b\"]"));
    assertEquals(500, post("{\"nihgts\":2}").statusCode());
    AssertionError failure = assertThrows(AssertionError.class, net::close);
    assertTrue(failure.getMessage().contains("has nothing at $.nights: "), failure::getMessage);
    assertTrue(failure.getMessage().contains("nihgts"), failure::getMessage);
  }

  @Test
  void writesInstantsInFull() throws Exception {
    net.clock().stop();
    net.clock().set(Instant.parse("2031-04-02T10:00:00Z"));
    net.stub("POST " + URL).answer(template("text/plain", "${now} ${now+PT2H} ${now-P1D}"));

    assertEquals("2031-04-02T10:00:00Z 2031-04-02T12:00:00Z 2031-04-01T10:00:00Z", post("").body());
    net.clock().advance(Duration.ofMillis(20));
    assertTrue(post("").body().startsWith("2031-04-02T10:00:00.020Z "));
  }

  @Test
  void seedsACollectionWithObjects() throws Exception {
    RestCollection bookings =
        net.collection(URL)
            .identifiedBy("berth")
            .seed(List.of(new Booking("B-12", LocalDate.of(2031, 4, 2))));

    assertEquals("2031-04-02", bookings.items().get(0).path("day").asText());
    assertThrows(IllegalArgumentException.class, () -> bookings.seed(List.of("B-12")));
  }

  @Test
  void pointsFromJsonToTemplate() {
    IllegalArgumentException refused =
        assertThrows(IllegalArgumentException.class, () -> json("{\"reading\": ${count}}"));

    assertTrue(refused.getMessage().contains("template(\"application/json\", text)"));
  }

  @Test
  void pointsFromLengthToSize() {
    IllegalArgumentException refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> net.stub("POST " + URL).json("length($.lines)", 2));

    assertEquals(
        "\"length($.lines)\" is not a JSONPath: RFC 9535 has functions only in filters.\n"
            + "Fix: write \"$.lines\" with the value size(...).",
        refused.getMessage());
  }

  private HttpResponse<String> post(String body) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(URL)).POST(BodyPublishers.ofString(body)).build();
    return client.send(request, BodyHandlers.ofString());
  }
}
