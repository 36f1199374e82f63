// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;
import static dev.cachette.match.Bodies.textBody;
import static dev.cachette.match.Conditions.allOf;
import static dev.cachette.match.Conditions.anyOf;
import static dev.cachette.match.Conditions.basic;
import static dev.cachette.match.Conditions.bearer;
import static dev.cachette.match.Conditions.cookie;
import static dev.cachette.match.Conditions.header;
import static dev.cachette.match.Conditions.not;
import static dev.cachette.match.Conditions.query;
import static dev.cachette.match.Conditions.requestSatisfies;
import static dev.cachette.match.Values.after;
import static dev.cachette.match.Values.atLeast;
import static dev.cachette.match.Values.atMost;
import static dev.cachette.match.Values.before;
import static dev.cachette.match.Values.between;
import static dev.cachette.match.Values.contains;
import static dev.cachette.match.Values.each;
import static dev.cachette.match.Values.endsWith;
import static dev.cachette.match.Values.is;
import static dev.cachette.match.Values.list;
import static dev.cachette.match.Values.missing;
import static dev.cachette.match.Values.oneOf;
import static dev.cachette.match.Values.pattern;
import static dev.cachette.match.Values.present;
import static dev.cachette.match.Values.startsWith;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.match.Condition;
import dev.cachette.match.RequestPattern;
import dev.cachette.match.ValueCondition;
import dev.cachette.match.Values;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Conditions on everything but the body, with a real client. */
class RequestConditionsTest {

  private static Probe probe;
  private static Cachette net;

  @BeforeAll
  static void open() {
    probe = new Probe();
    net = probe.net();
  }

  @AfterAll
  static void close() {
    probe.close();
  }

  static Stream<Arguments> values() {
    Instant noon = Instant.parse("2031-04-02T12:00:00Z");
    LocalDate day = LocalDate.parse("2031-04-02");
    return Stream.of(
        row(is("Kittiwake"), "Kittiwake", "kittiwake"),
        row(is("Kittiwake").ignoringCase(), "kittiWAKE", "Kittiwakes"),
        row(contains("tiw"), "Kittiwake", "KitTIWake"),
        row(contains("TIW").ignoringCase(), "Kittiwake", "Kitty"),
        row(startsWith("Kitti"), "Kittiwake", "A Kittiwake"),
        row(endsWith("wake"), "Kittiwake", "Kittiwakes"),
        row(pattern("\\d{4}-\\d\\d"), "2031-04", "2031-04-02"),
        row(pattern("k.*").ignoringCase(), "Kittiwake", "A Kittiwake"),
        row(oneOf("north", "south"), "south", "west"),
        row(Values.not("north"), "south", "north"),
        row(Values.not(startsWith("n")), "south", "north"),
        row(is(4.2), "4.20", "4.3"),
        row(is(7), "7.0", "seven"),
        row(is(true), "true", "yes"),
        row(atLeast(3), "3", "2.9"),
        row(atMost(4.5), "4.5", "4.51"),
        row(between(1, 3), "2", "4"),
        row(before(noon), "2031-04-02T13:59:59+02:00", "2031-04-02T12:00:00Z"),
        row(after(noon), "Wed, 02 Apr 2031 12:00:01 GMT", "2031-04-02T12:00:01"),
        row(is(noon), "2031-04-02T14:00:00+02:00", "2031-04-02T14:00:00Z"),
        row(before(day), "2031-04-01", "2031-04-02T00:00:00Z"),
        row(after(day), "2031-04-03T00:00:00", "soon"),
        row(startsWith("a").and(endsWith("z")), "abcz", "abc"),
        row(is("a").or(is("b")), "b", "c"),
        row(Values.satisfies("an even length", text -> text.length() % 2 == 0), "ab", "abc"));
  }

  @ParameterizedTest(name = "{0}: {1}, not {2}")
  @MethodSource("values")
  void aValueFitsOrNot(ValueCondition condition, String fitting, String other) throws Exception {
    assertTrue(fits(query("v", condition), get("?v=" + escaped(fitting))));
    assertTrue(fits(query("v", condition).negated(), get("?v=" + escaped(other))));
    assertTrue(fits(header("X-V", condition), get("").header("x-v", fitting)));
  }

  @Test
  void missingPresentAndRepeated() throws Exception {
    HttpRequest.Builder twice = get("?berth=1&berth=2");

    assertTrue(fits(query("berth", missing()), get("")));
    assertTrue(fits(query("berth", missing()).negated(), get("?berth")));
    assertTrue(fits(query("berth", present()), get("?berth")));
    assertTrue(fits(query("berth", is("2")), twice));
    assertTrue(fits(query("berth", each(pattern("[0-9]"))), twice));
    assertTrue(fits(not(query("berth", each(is("2")))), twice));
    assertTrue(fits(query("berth", list("1", "2")), twice));
    assertTrue(fits(not(query("berth", list("2", "1"))), twice));
    assertTrue(fits(header("x-v", list("a", "b")), get("").header("X-V", "a").header("x-v", "b")));
  }

  @Test
  void cookiesAndCredentials() throws Exception {
    HttpRequest.Builder cookies = get("").header("cookie", "desk=north; berth=\"12\"");
    HttpRequest.Builder basic = get("").header("Authorization", "Basic ZGVzazpwOnfDpA==");

    assertTrue(fits(cookie("desk", is("north")), cookies));
    assertTrue(fits(cookie("berth", is(12)), cookies));
    assertTrue(fits(cookie("pier", missing()), cookies));
    assertTrue(fits(basic("desk", "p:w\u00e4"), basic));
    assertTrue(fits(not(basic("desk", "other")), basic));
    assertTrue(fits(not(basic("desk", "p")), get("").header("authorization", "Bearer x")));
    assertTrue(fits(bearer(is("x")), get("").header("authorization", "bearer x")));
    assertTrue(fits(bearer(missing()), basic));
  }

  @Test
  void conditionsAreCombinedNegatedAndNamed() throws Exception {
    Condition either = anyOf(query("a", present()), query("b", present()), query("c", present()));
    Condition both = allOf(query("a", present()), query("b", present()));

    assertTrue(fits(either, get("?c")));
    assertTrue(fits(not(either), get("?d")));
    assertTrue(fits(both, get("?a&b")));
    assertTrue(fits(not(both), get("?a")));
    assertTrue(
        fits(requestSatisfies("short", request -> request.uri().path().length() < 5), get("")));
  }

  @Test
  void variablesOfHostAndPathCanBeAsked() throws Exception {
    net.stub("GET https://{desk}.tides.example/v1/{+rest}")
        .path("desk", is("north"))
        .path("rest", contains("marrow"))
        .answer(status(204));
    try (Cachette.Scope scope = net.scope()) {
      assertEquals(204, statusOf("https://north.tides.example/v1/stations/marrow"));
      assertEquals(501, statusOf("https://south.tides.example/v1/stations/marrow"));
      assertEquals(501, statusOf("https://north.tides.example/v1/stations/skerry"));
    }
    var refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> RequestPattern.of("GET https://a.example/{station}").path("staton", "x"));
    assertTrue(refused.getMessage().contains("has [station]"), refused::getMessage);
  }

  @Test
  void methodsCanBeSeveralOrAny() throws Exception {
    net.stub("GET,DELETE https://a.example/v1").answer(status(202));
    net.stub("* https://a.example/v2").answer(status(203));
    assertEquals(202, send("DELETE", "https://a.example/v1"));
    assertEquals(501, send("PUT", "https://a.example/v1"));
    assertEquals(203, send("BERTH", "https://a.example/v2"));
  }

  @Test
  void aPatternIsAValueForStubsAndCalls() throws Exception {
    RequestPattern urgent =
        RequestPattern.of("GET https://a.example/{+rest}").header("x-urgent", present());
    try (Cachette.Scope scope = net.scope()) {
      net.stub(urgent).named("urgent").answer(status(202));
      net.stub("GET https://a.example/{+rest}").answer(status(204));

      assertEquals(202, send(get("").header("X-Urgent", "1")));
      assertEquals(204, send(get("")));

      net.calls(urgent).assertCount(1);
      net.calls("GET https://a.example/{+rest}").header("x-urgent", missing()).assertCount(1);
      net.calls().where(header("x-urgent", is("1"))).assertCount(1);
    }
  }

  @Test
  void invalidConditionsAreRefusedAtTheirLine() {
    UnansweredStub stub = net.stub("GET https://a.example/");
    List<Runnable> mistakes =
        List.of(
            () -> stub.where((Condition) null),
            () -> stub.header("", is("x")),
            () -> stub.query("a", (String) null),
            () -> stub.header("x", pattern("(")),
            () -> stub.header("x", oneOf()),
            () -> stub.header("x", between(3, 1)),
            () -> stub.header("x", atLeast(Double.NaN)),
            () -> stub.json("vessel.name", is("x")),
            () -> stub.json("$.vessel[", is("x")),
            () -> stub.json("/a~b", is("x")),
            () -> stub.satisfies(" ", request -> true),
            () -> stub.body(textBody((ValueCondition) null)));

    mistakes.forEach(
        mistake -> assertThrows(IllegalArgumentException.class, mistake::run, mistake::toString));
    stub.answer(status(204));
    var late = assertThrows(IllegalStateException.class, () -> stub.header("x", is("y")));
    assertTrue(
        late.getMessage().contains("Fix: call conditions before answer(...)"), late::getMessage);
  }

  private static Arguments row(ValueCondition condition, String fitting, String other) {
    return Arguments.of(condition, fitting, other);
  }

  private static boolean fits(Condition condition, HttpRequest.Builder request) throws Exception {
    return probe.fits(condition, request);
  }

  private static HttpRequest.Builder get(String query) {
    return HttpRequest.newBuilder(URI.create("https://a.example/v1" + query));
  }

  private static int statusOf(String url) throws Exception {
    return send(HttpRequest.newBuilder(URI.create(url)));
  }

  private static int send(String method, String url) throws Exception {
    return send(HttpRequest.newBuilder(URI.create(url)).method(method, BodyPublishers.noBody()));
  }

  private static int send(HttpRequest.Builder request) throws Exception {
    return probe.send(request);
  }

  private static String escaped(String text) {
    StringBuilder out = new StringBuilder();
    Arrays.stream(text.split("")).forEach(c -> out.append("+:, ".contains(c) ? hex(c) : c));
    return out.toString();
  }

  private static String hex(String c) {
    return String.format("%%%02X", (int) c.charAt(0));
  }
}
