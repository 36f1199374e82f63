// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.explain.Situation;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.match.Bodies;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import dev.cachette.match.Values;
import dev.cachette.result.StubReference;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.w3c.dom.Document;

/** Messages print nothing that cassettes hide: every placement through every outlet of core. */
@Tag("once")
class OutletsTest {

  /** Only another part of the exchange tells that these are secret. */
  private static final Set<String> TOLD_ELSEWHERE =
      Set.of("what was a token is found elsewhere", "an echo in a header");

  static Stream<Placement> placements() throws IOException {
    return Stream.concat(
            Placement.readWithSecrets("by-shape.http"),
            Placement.read("usual-places.http", "s3cr3t-Kx7q9Zt4Vb2n"))
        .filter(placement -> !TOLD_ELSEWHERE.contains(placement.name()));
  }

  @ParameterizedTest
  @MethodSource("placements")
  void noMessagePrintsWhatCassettesHide(Placement placement) {
    Leak leak = new Leak(placement.secret());
    outlets(placement.exchange())
        .forEach(
            (outlet, text) ->
                assertFalse(
                    leak.isIn(text.getBytes(StandardCharsets.UTF_8)), () -> outlet + ":\n" + text));
  }

  private static Map<String, String> outlets(Exchange exchange) {
    Request request = exchange.request();
    Map<String, String> outlets = new LinkedHashMap<>();
    outlets.put("request.toString()", request.toString());
    outlets.put("request for people", RequestText.of(request));
    outlets.put("headers of the request", headers(request.headers().stream()));
    outlets.put(
        "headers of the response", headers(exchange.response().orElseThrow().headers().stream()));
    outlets.put("exchange.toString()", exchange.toString());
    outlets.put("drift", drift(exchange).toString());
    addExplanations(outlets, request, conditions(request));
    for (Request malformed : malformed(request)) {
      addExplanations(
          outlets,
          malformed,
          List.of(
              Bodies.sameJson("{}"),
              Bodies.jsonAt("$.a", "nothing"),
              Bodies.jsonSchema("{}"),
              Bodies.xpath("/a", "nothing")));
    }
    return outlets;
  }

  /** Returns the request with JSON or XML that is cut, or has one character too many. */
  private static List<Request> malformed(Request request) {
    String text = Content.of(request.headers(), request.body()).text().stripTrailing();
    List<Request> malformed = new ArrayList<>();
    for (int cut : text.matches("(?s)[{\\[<].*[}\\]>]") ? new int[] {0, 1} : new int[0]) {
      String body = text.substring(0, text.length() - cut) + (cut == 0 ? "}" : "");
      malformed.add(
          new Request(
              request.method(),
              request.uri(),
              request.headers().with("content-encoding"),
              Body.of(body)));
    }
    return malformed;
  }

  private static void addExplanations(
      Map<String, String> outlets, Request request, List<Condition> conditions) {
    for (Condition condition : conditions) {
      if (condition.holds(MatchInternals.received(request))) {
        continue;
      }
      String name = outlets.size() + ", " + condition.getClass().getSimpleName();
      RequestPattern pattern = RequestPattern.of("* https://*/{+rest}").where(condition);
      Explained explained =
          Explanation.ofUnexpected(
              request,
              Situation.of(
                  List.of(
                      new Explanation.Stub(
                          pattern, new StubReference("a stub", "Desk.java:1"), List::of))));
      outlets.put("explanation by " + name, explained.text());
      outlets.put("closest stub by " + name, explained.closest().toString());
      outlets.put(
          "closest call by " + name,
          CheckText.lines(
              MatchInternals.examine(pattern, request).masked(RequestMask.of(request)).misses()));
    }
  }

  /** The drift of a response with the content of the request, to one with other values. */
  private static Drift drift(Exchange exchange) {
    Request request = exchange.request();
    Body other = Body.of(request.text().replaceAll("[A-Za-z0-9+/=._-]{7,}", "other-value-7"));
    Exchange before = exchange.with(new Response(200, request.headers(), request.body()));
    Exchange after = exchange.with(new Response(200, request.headers(), other));
    return new CassetteContent("harbour", Optional.empty(), List.of(exchange, before))
        .compareWith(new CassetteContent("harbour", Optional.empty(), List.of(after, after)));
  }

  /** Conditions that do not hold, on every part of the request. */
  private static List<Condition> conditions(Request request) {
    Content content = Content.of(request.headers(), request.body());
    List<Condition> conditions = new ArrayList<>();
    conditions.add(Conditions.path("rest", "nothing"));
    conditions.add(Conditions.basic("harbour", "nothing"));
    conditions.add(Conditions.bearer("nothing"));
    for (Header header : request.headers()) {
      conditions.add(Conditions.header(header.name(), "nothing"));
      conditions.add(Conditions.header(header.name(), header.value()).negated());
    }
    for (String name : request.uri().query().names()) {
      conditions.add(Conditions.query(name, "nothing"));
      conditions.add(Conditions.query(name, Values.pattern("[0-9]{90}")));
    }
    if (content.isEmpty()) {
      return conditions;
    }
    conditions.add(Bodies.sameText("nothing"));
    conditions.add(Bodies.sameText(content.text() + "x"));
    conditions.add(Bodies.textBody(Values.startsWith("nothing")));
    conditions.add(Bodies.formField("nothing", "at all"));
    boolean form =
        content.mediaType().filter(type -> type.subtype().contains("form-url")).isPresent();
    for (String name : form ? content.form().names() : List.<String>of()) {
      conditions.add(Bodies.formField(name, "nothing"));
    }
    if (content.json().isPresent()) {
      conditions.add(Bodies.sameJson("{}"));
      conditions.add(Bodies.sameJson("{\"password\":\"nothing\",\"pin\":1,\"query\":\"x\"}"));
      conditions.add(Bodies.jsonSchema("{\"additionalProperties\":{\"type\":\"boolean\"}}"));
      conditions.add(Bodies.jsonAt("$", "nothing"));
      conditions.add(Bodies.jsonAt("$.*", "nothing"));
      conditions.add(Bodies.jsonAt("$..*", Values.each(Values.is("nothing"))));
      if (content.json().get().isObject()) {
        content
            .json()
            .get()
            .fieldNames()
            .forEachRemaining(
                name -> conditions.add(Bodies.jsonAt("$['" + name + "']", "nothing")));
      }
    }
    content.xml().value().ifPresent(document -> onXml(document, conditions));
    return conditions;
  }

  private static void onXml(Document document, List<Condition> conditions) {
    conditions.add(Bodies.sameXml("<nothing/>"));
    conditions.add(Bodies.xpath("//*[local-name()='password']", "nothing"));
    conditions.add(Bodies.xpath("//@*", "nothing"));
    conditions.add(Bodies.xpath("/*", Values.is(document.getDocumentElement().getTagName())));
  }

  private static String headers(Stream<Header> headers) {
    return headers.map(Header::toString).collect(Collectors.joining("\n"));
  }
}
