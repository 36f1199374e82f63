// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.Factories.atLeast;
import static dev.cachette.Factories.atMost;
import static dev.cachette.Factories.containsJson;
import static dev.cachette.Factories.graphql;
import static dev.cachette.Factories.inAnyOrder;
import static dev.cachette.Factories.is;
import static dev.cachette.Factories.isNull;
import static dev.cachette.Factories.json;
import static dev.cachette.Factories.length;
import static dev.cachette.Factories.list;
import static dev.cachette.Factories.not;
import static dev.cachette.Factories.part;
import static dev.cachette.Factories.sameJson;
import static dev.cachette.Factories.size;
import static dev.cachette.Factories.soap;
import static dev.cachette.Factories.startsWith;
import static dev.cachette.Factories.status;
import static dev.cachette.Factories.xpath;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.match.RequestPattern;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZonedDateTime;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** The first natural attempt: plain values wherever a condition is possible. */
class PlainValuesTest {

  private static final String URL = "https://berths.example/v1/bookings";

  private final Cachette net =
      Cachette.open(
          Settings.defaults()
              .unexpectedCalls(UnexpectedCalls.WARN)
              .unusedStubs(UnusedStubs.IGNORE));
  private final HttpClient client = HttpClient.newHttpClient();

  private enum Quay {
    NORTH,
    SOUTH
  }

  @AfterEach
  void close() {
    net.close();
  }

  static Stream<Arguments> inJson() {
    return Stream.of(
        Arguments.of(2, "2", "\"2\""),
        Arguments.of(2, "2.0", "3"),
        Arguments.of(4.5, "4.50", "4.51"),
        Arguments.of(true, "true", "\"true\""),
        Arguments.of("2", "\"2\"", "2"),
        Arguments.of('B', "\"B\"", "\"b\""),
        Arguments.of(Quay.NORTH, "\"NORTH\"", "\"SOUTH\""),
        Arguments.of(LocalDate.of(2031, 4, 2), "\"2031-04-02\"", "\"2031-04-03\""),
        Arguments.of(LocalTime.of(4, 10), "\"04:10:00\"", "\"04:10:01\""),
        Arguments.of(
            LocalDateTime.of(2031, 4, 2, 4, 10), "\"2031-04-02T04:10:00\"", "\"2031-04-02\""),
        Arguments.of(
            Instant.parse("2031-04-02T04:10:00Z"),
            "\"2031-04-02T06:10:00+02:00\"",
            "\"2031-04-02T04:10:01Z\""),
        Arguments.of(
            OffsetDateTime.parse("2031-04-02T06:10:00+02:00"),
            "\"2031-04-02T04:10:00Z\"",
            "\"2031-04-02\""),
        Arguments.of(
            ZonedDateTime.parse("2031-04-02T06:10:00+02:00[Europe/Oslo]"),
            "\"2031-04-02T04:10:00Z\"",
            "7"),
        Arguments.of(
            UUID.fromString("00000000-0000-4000-8000-000000000012"),
            "\"00000000-0000-4000-8000-000000000012\"",
            "\"12\""),
        Arguments.of(List.of(1, 2), "[1, 2]", "[2, 1]"),
        Arguments.of(Map.of("name", "Kittiwake"), "{\"name\": \"Kittiwake\"}", "{}"),
        Arguments.of(null, "null", "0"),
        Arguments.of(startsWith("K"), "\"Kittiwake\"", "\"Skua\""),
        Arguments.of(not(2), "3", "2"),
        Arguments.of(not((Object) null), "3", "null"),
        Arguments.of(is(Quay.SOUTH), "\"SOUTH\"", "\"NORTH\""),
        Arguments.of(isNull(), "null", "\"null\""),
        Arguments.of(list("b", "a"), "[\"b\", \"a\"]", "[\"a\", \"b\"]"),
        Arguments.of(inAnyOrder("a", "b"), "[\"b\", \"a\"]", "[\"b\", \"b\"]"),
        Arguments.of(inAnyOrder(1, 2, 2), "[2, 1, 2]", "[1, 1, 2]"),
        Arguments.of(inAnyOrder(startsWith("a"), "ab"), "[\"ab\", \"ac\"]", "[\"ab\", \"bc\"]"),
        Arguments.of(inAnyOrder(), "[]", "[1]"),
        Arguments.of(size(2), "[1, 2]", "[1]"),
        Arguments.of(size(0), "[]", "[null]"),
        Arguments.of(size(atLeast(2)), "[1, 2, 3]", "[1]"),
        Arguments.of(length(4), "\"Skua\"", "\"Tern.\""),
        Arguments.of(length(2), "\"\uD83D\uDEA2!\"", "\"\uD83D\uDEA2\""),
        Arguments.of(length(atMost(3)), "\"\"", "\"Skua\""),
        Arguments.of(length(is(2)), "\"12\"", "12"));
  }

  @ParameterizedTest
  @MethodSource("inJson")
  void aValueInJson(Object value, String fitting, String other) throws Exception {
    net.stub("POST " + URL).json("$.value", value).answer(status(204));

    assertEquals(204, post("{\"value\": " + fitting + "}", it -> it), fitting);
    assertEquals(501, post("{\"value\": " + other + "}", it -> it), other);
  }

  @Test
  void aMissingValueIsNotAValue() throws Exception {
    for (Object value : Arrays.asList(2, "2", true, null, List.of(), Map.of(), size(1))) {
      net.stub("POST " + URL).json("$.value", value).answer(status(204));
    }

    assertEquals(501, post("{}", it -> it));
  }

  static Stream<Arguments> inText() {
    return Stream.of(
        Arguments.of("north", "north", "North"),
        Arguments.of(2, "2.0", "two"),
        Arguments.of(true, "true", "TRUE"),
        Arguments.of(Quay.NORTH, "NORTH", "north"),
        Arguments.of(LocalDate.of(2031, 4, 2), "2031-04-02", "2031-04-03"),
        Arguments.of(
            Instant.parse("2031-04-02T04:10:00Z"), "2031-04-02T04:10:00Z", "2031-04-02T04:11:00Z"));
  }

  @ParameterizedTest
  @MethodSource("inText")
  void aValueElsewhere(Object value, String fitting, String other) throws Exception {
    net.stub("POST " + URL).header("x-value", value).answer(status(201));
    net.stub("POST " + URL).cookie("value", value).answer(status(202));
    net.stub("POST " + URL).form("value", value).answer(status(203));
    net.stub("POST " + URL).query("value", value).answer(status(204));
    net.stub("POST " + URL + "/{value}").path("value", value).answer(status(205));

    assertEquals(201, post("", it -> it.header("x-value", fitting)));
    assertEquals(501, post("", it -> it.header("x-value", other)));
    assertEquals(202, post("", it -> it.header("cookie", "value=" + fitting)));
    assertEquals(501, post("", it -> it.header("cookie", "value=" + other)));
    String type = "application/x-www-form-urlencoded";
    assertEquals(203, post("value=" + fitting, it -> it.header("content-type", type)));
    assertEquals(501, post("value=" + other, it -> it.header("content-type", type)));
    assertEquals(204, post("", it -> it.uri(URI.create(URL + "?value=" + fitting))));
    assertEquals(501, post("", it -> it.uri(URI.create(URL + "?value=" + other))));
    assertEquals(205, post("", it -> it.uri(URI.create(URL + "/" + fitting))));
    assertEquals(501, post("", it -> it.uri(URI.create(URL + "/" + other))));
  }

  @Test
  void wholeBodiesAndTokens() throws Exception {
    net.stub("POST " + URL).text("ahoy").answer(status(201));
    net.stub("POST " + URL).bearer("t-1").answer(status(202));
    net.stub("POST " + URL).graphql("FindBlock").answer(status(203));
    net.stub("POST " + URL).soap("Declare").answer(status(204));
    net.stub("POST " + URL).xpath("//@tons", 12).answer(status(205));
    net.stub("POST " + URL)
        .body(part("m").fileName("cargo.csv").contentType("text/csv").content("rope"))
        .answer(status(206));

    net.stub("POST " + URL)
        .body(xpath("/c:cargo/@tons", 14, Map.of("c", "urn:cargo")))
        .answer(status(207));

    assertEquals(201, post("ahoy", it -> it));
    assertEquals(207, post("<cargo xmlns='urn:cargo' tons='14'/>", it -> it));
    assertEquals(202, post("", it -> it.header("authorization", "Bearer t-1")));
    assertEquals(203, post("{\"query\": \"query FindBlock { block }\"}", it -> it));
    String envelope =
        "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body>"
            + "<Declare xmlns='urn:customs'/></e:Body></e:Envelope>";
    assertEquals(204, post(envelope, it -> it));
    assertEquals(205, post("<cargo tons='12'/>", it -> it));
    String multipart =
        "--b\r\ncontent-disposition: form-data; name=m; filename=cargo.csv\r\n"
            + "content-type: text/csv\r\n\r\nrope\r\n--b--\r\n";
    assertEquals(
        206, post(multipart, it -> it.header("content-type", "multipart/form-data; boundary=b")));
  }

  @Test
  void furtherRequirementsTakeValues() throws Exception {
    net.stub("POST " + URL)
        .where(graphql().variable("$.day", LocalDate.of(2031, 4, 2)).variable("nights", 2))
        .answer(status(201));
    net.stub("POST " + URL).where(soap().action("declare")).answer(status(202));

    String variables = "{\"day\": \"2031-04-02\", \"nights\": 2}";
    assertEquals(
        201, post("{\"query\": \"query A { b }\", \"variables\": " + variables + "}", it -> it));
  }

  @Test
  void sameJsonComparesAsAnswersAreWritten() throws Exception {
    Map<String, Object> booking = new HashMap<>();
    booking.put("day", LocalDate.of(2031, 4, 2));
    booking.put("at", Instant.parse("2031-04-02T04:10:00Z"));
    booking.put("stay", java.time.Duration.ofHours(2));
    booking.put("zoned", ZonedDateTime.parse("2031-04-02T06:10:00+02:00[Europe/Oslo]"));
    net.stub("POST " + URL).body(sameJson(booking)).answer(json(booking));

    String sent =
        "{\"day\":\"2031-04-02\",\"at\":\"2031-04-02T04:10:00Z\",\"stay\":\"PT2H\","
            + "\"zoned\":\"2031-04-02T06:10:00+02:00\"}";
    HttpResponse<String> response = client.send(request(sent, it -> it), BodyHandlers.ofString());

    assertEquals(200, response.statusCode(), response.body());
    assertTrue(response.body().contains("\"stay\":\"PT2H\""), response.body());
    assertTrue(response.body().contains("\"zoned\":\"2031-04-02T06:10:00+02:00\""));
    net.calls().body(containsJson(Map.of("day", LocalDate.of(2031, 4, 2)))).assertCount(1);
    assertEquals(
        LocalDate.of(2031, 4, 2), net.calls().only().as(Booked.class).day(), "and are read");
  }

  /** A booking, as the code under test has it. */
  record Booked(LocalDate day, Instant at, java.time.Duration stay, ZonedDateTime zoned) {}

  @Test
  void callsCountAndAreEmpty() throws Exception {
    assertTrue(net.calls().isEmpty());
    post("{\"nights\": 2}", it -> it);
    post("{\"nights\": 3}", it -> it);

    assertEquals(2, net.calls("POST " + URL).count());
    assertEquals(1, net.calls().json("$.nights", 2).count());
    assertTrue(net.calls().json("$.nights", 4).isEmpty());
  }

  @Test
  void listsAreRefusedWithAFixWhereOneValueIsNeeded() {
    UnansweredStub stub = net.stub("POST " + URL);
    for (Object wrong : Arrays.asList(List.of(1), Map.of(), new int[] {1}, null)) {
      var refused =
          assertThrows(IllegalArgumentException.class, () -> stub.header("x-desk", wrong));
      assertTrue(refused.getMessage().contains("Fix: "), refused::getMessage);
      assertThrows(IllegalArgumentException.class, () -> stub.query("desk", wrong));
      assertThrows(IllegalArgumentException.class, () -> stub.form("desk", wrong));
    }
    var name = assertThrows(IllegalArgumentException.class, () -> stub.header("x desk", "north"));
    assertTrue(name.getMessage().contains("\"x desk\""), name::getMessage);
    assertThrows(IllegalArgumentException.class, () -> stub.cookie("de;sk", "north"));
    assertThrows(IllegalArgumentException.class, () -> size(-1));
    assertThrows(IllegalArgumentException.class, () -> is((String) null));
    assertThrows(IllegalArgumentException.class, () -> stub.bearer((String) null));
  }

  @Test
  void patternsTakeThemToo() {
    RequestPattern pattern = RequestPattern.of("POST " + URL).json("$.nights", 2).query("a", 1);

    assertEquals(
        "POST " + URL + " where json $.nights: the number 2; query a: the number 1",
        pattern.toString());
  }

  private int post(String body, UnaryOperator<HttpRequest.Builder> change) throws Exception {
    return client.send(request(body, change), BodyHandlers.ofString()).statusCode();
  }

  private static HttpRequest request(String body, UnaryOperator<HttpRequest.Builder> change) {
    return change
        .apply(HttpRequest.newBuilder(URI.create(URL)).POST(BodyPublishers.ofString(body)))
        .build();
  }
}
