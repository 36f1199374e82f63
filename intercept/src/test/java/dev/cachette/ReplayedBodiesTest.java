// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.cassette.RecordingMode.CREATE;
import static dev.cachette.cassette.RecordingMode.REPLAY;
import static dev.cachette.cassette.RecordingMode.REWRITE;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** Request bodies of each kind: equivalent ones are replayed, others are explained by place. */
class ReplayedBodiesTest {

  private static final String DESK = "http://berths.example/v1/bookings";

  @TempDir Path folder;
  private RealService outside;

  @BeforeEach
  void open() throws IOException {
    outside = new RealService();
    outside.answers(200, "booked");
  }

  @AfterEach
  void close() {
    outside.close();
  }

  /**
   * A kind of body.
   *
   * @param recorded the recorded body
   * @param same an equivalent one
   * @param other one that differs
   * @param named parts of the explanation
   */
  record Kind(String type, String recorded, String same, String other, String... named) {

    @Override
    public String toString() {
      return type;
    }
  }

  static Stream<Kind> kinds() {
    return Stream.concat(structured(), plain());
  }

  private static Stream<Kind> structured() {
    return Stream.of(
        new Kind(
            "application/json",
            "{\"vessel\":\"Kittiwake\",\"draught\":4.2}",
            "{ \"draught\": 4.20, \"vessel\": \"Kittiwake\" }",
            "{\"vessel\":\"Kittiwake\",\"draught\":4.5}",
            "$.draught",
            "4.2",
            "4.5"),
        new Kind(
            "text/plain",
            "{\"vessel\":\"Kittiwake\"}",
            "{ \"vessel\": \"Kittiwake\" }",
            "{\"vessel\":\"Fulmar\"}",
            "$.vessel",
            "Fulmar"),
        new Kind(
            "text/xml",
            "<a:cargo xmlns:a='urn:c'><a:tons>12</a:tons></a:cargo>",
            "<cargo xmlns='urn:c'>\n  <tons>12</tons>\n</cargo>",
            "<a:cargo xmlns:a='urn:c'><a:tons>13</a:tons></a:cargo>",
            "/a:cargo/a:tons",
            "\"13\"",
            "ignoringXPath(\"/*[local-name()='cargo']/*[local-name()='tons']\")"),
        new Kind(
            "application/x-www-form-urlencoded",
            "vessel=Kittiwake&berth=B+12",
            "berth=B%2012&vessel=Kittiwake",
            "vessel=Kittiwake&berth=B+13",
            "field berth",
            "\"B 12\"",
            "\"B 13\"",
            "ignoringFields(\"berth\")"),
        new Kind(
            "multipart/form-data; boundary=one",
            part("one", "plan", "application/json", "{\"berth\":\"B-12\"}"),
            part("one", "plan", "application/json", "{ \"berth\" : \"B-12\" }"),
            part("one", "plan", "application/json", "{\"berth\":\"B-13\"}"),
            "part plan, $.berth",
            "\"B-13\"",
            "ignoringFields(\"plan\")"));
  }

  private static Stream<Kind> plain() {
    return Stream.of(
        new Kind(
            "text/plain",
            "one\ntwo\nthree",
            "one\r\ntwo\r\nthree",
            "one\ntoo\nthree",
            "line 2",
            "\"too\""),
        new Kind(
            "application/octet-stream", "\0\1\2\3", "\0\1\2\3", "\0\1\4\3", "byte 2", "04 03"));
  }

  private static String part(String boundary, String name, String type, String content) {
    return ("--"
            + boundary
            + "\nContent-Disposition: form-data; name=\""
            + name
            + "\"\n"
            + "Content-Type: "
            + type
            + "\n\n"
            + content
            + "\n--"
            + boundary
            + "--\n")
        .replace("\n", "\r\n");
  }

  @ParameterizedTest
  @MethodSource("kinds")
  void equivalentBodiesAreReplayed(Kind kind) throws Exception {
    recorded(kind);
    try (Cachette net = net(REPLAY)) {
      net.cassette("desk");
      assertEquals("booked", post(kind.type(), kind.same()).body());
    }
  }

  @ParameterizedTest
  @MethodSource("kinds")
  void otherBodiesAreExplainedByPlace(Kind kind) throws Exception {
    recorded(kind);
    Cachette net = net(REPLAY);
    net.cassette("desk");

    String explanation = post(kind.type(), kind.other()).body();

    for (String named : kind.named()) {
      assertTrue(explanation.contains(named), () -> named + " is not in:\n" + explanation);
    }
    assertThrows(AssertionFailedError.class, net::close);
  }

  @ParameterizedTest
  @MethodSource("kinds")
  void valuesThatDifferAreLearnt(Kind kind) throws Exception {
    boolean hasPlaces = kind.named()[0].matches("(\\$|/|field|part).*");
    recorded(kind);
    try (Cachette net = net(REWRITE, CassetteSettings::learnVarying)) {
      net.cassette("desk");
      post(kind.type(), kind.other());
    }
    Cachette net = net(REPLAY);
    net.cassette("desk");
    assertEquals(hasPlaces ? 200 : 501, post(kind.type(), kind.recorded()).statusCode());
    if (hasPlaces) {
      net.close();
    } else {
      assertThrows(AssertionFailedError.class, net::close);
    }
  }

  @Test
  void messagesMaskWhatTheRulesOfACassetteHide() throws Exception {
    UnaryOperator<CassetteSettings> rules =
        settings ->
            settings
                .hosts("berths.example")
                .redact("desk", "gull-over-the-bay")
                .redaction(how -> how.alsoNamed("mooring-word"));
    Cachette net = net(CREATE, rules);
    net.cassette("desk");

    String body = "{\"mooringWord\":\"three bells\",\"note\":\"gull-over-the-bay\"}";
    String explanation =
        send("http://tides.example/v1?mooring_word=lanterns", "application/json", body).body();

    AssertionFailedError failure = assertThrows(AssertionFailedError.class, net::close);
    for (String text : new String[] {explanation, failure.getMessage()}) {
      for (String secret : new String[] {"three bells", "gull-over-the-bay", "lanterns"}) {
        assertFalse(text.contains(secret), text);
      }
    }
  }

  private void recorded(Kind kind) throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("desk");
      post(kind.type(), kind.recorded());
    }
  }

  private Cachette net(RecordingMode mode) {
    return net(mode, settings -> settings);
  }

  private Cachette net(RecordingMode mode, UnaryOperator<CassetteSettings> more) {
    CassetteSettings settings = CassetteSettings.defaults().mode(mode).recordingInCi();
    return Cachette.open(
        Settings.defaults()
            .cassetteFolder(folder)
            .cassettes(more.apply(settings))
            .realServiceAt("http://berths.example", outside.address()));
  }

  private static HttpResponse<String> post(String type, String body) throws Exception {
    return send(DESK, type, body);
  }

  private static HttpResponse<String> send(String url, String type, String body) throws Exception {
    return Calling.send(
        HttpClient.newHttpClient(),
        HttpRequest.newBuilder(URI.create(url))
            .header("content-type", type)
            .POST(BodyPublishers.ofString(body, StandardCharsets.UTF_8))
            .build());
  }
}
