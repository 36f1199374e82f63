// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.match.Bodies.containsJson;
import static dev.cachette.match.Bodies.formField;
import static dev.cachette.match.Bodies.graphql;
import static dev.cachette.match.Bodies.jsonAt;
import static dev.cachette.match.Bodies.jsonSchema;
import static dev.cachette.match.Bodies.part;
import static dev.cachette.match.Bodies.sameBytes;
import static dev.cachette.match.Bodies.sameJson;
import static dev.cachette.match.Bodies.sameText;
import static dev.cachette.match.Bodies.sameXml;
import static dev.cachette.match.Bodies.soap;
import static dev.cachette.match.Bodies.textBody;
import static dev.cachette.match.Bodies.xpath;
import static dev.cachette.match.Values.atMost;
import static dev.cachette.match.Values.contains;
import static dev.cachette.match.Values.each;
import static dev.cachette.match.Values.endsWith;
import static dev.cachette.match.Values.is;
import static dev.cachette.match.Values.isJson;
import static dev.cachette.match.Values.isNull;
import static dev.cachette.match.Values.missing;
import static dev.cachette.match.Values.present;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.match.Condition;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Conditions on bodies, with a real client. */
class BodyConditionsTest {

  private static final String BOOKING =
      "{\"vessel\":{\"name\":\"Kittiwake\",\"draught\":4.20},\"nights\":[1,2],\"note\":null}";

  private static Probe probe;

  @BeforeAll
  static void open() {
    probe = new Probe();
  }

  @AfterAll
  static void close() {
    probe.close();
  }

  @Test
  void jsonAsAWhole() throws Exception {
    String reordered =
        "{ \"nights\": [1, 2.0], \"note\": null, "
            + "\"vessel\": {\"draught\": 4.2, \"name\": \"Kittiwake\"}}";

    assertTrue(fits(sameJson(reordered), BOOKING));
    assertTrue(fits(sameJson(Map.of("a", 1, "b", List.of("x"))), "{\"b\":[\"x\"],\"a\":1}"));
    assertFalse(fits(sameJson(BOOKING), BOOKING.replace("4.20", "\"4.20\"")));
    assertFalse(fits(sameJson(BOOKING), BOOKING.replace("[1,2]", "[2,1]")));
    assertTrue(fits(sameJson(BOOKING).anyOrder(), BOOKING.replace("[1,2]", "[2,1]")));
    assertFalse(fits(sameJson(BOOKING).anyOrder(), BOOKING.replace("[1,2]", "[2,1,3]")));
    assertTrue(
        fits(sameJson(BOOKING).ignoring("$..draught", "/note"), BOOKING.replace("4.20", "9")));
    assertTrue(fits(sameJson(BOOKING).ignoring("$.note"), BOOKING.replace(",\"note\":null", "")));
    assertFalse(fits(sameJson(BOOKING), ""));
    assertFalse(fits(sameJson(BOOKING), BOOKING + "x"));
  }

  @Test
  void jsonThatContains() throws Exception {
    assertTrue(fits(containsJson("{\"vessel\":{\"name\":\"Kittiwake\"}}"), BOOKING));
    assertFalse(fits(containsJson("{\"vessel\":{\"name\":\"Skua\"}}"), BOOKING));
    assertFalse(fits(containsJson("{\"nights\":[1]}"), BOOKING));
    assertTrue(fits(containsJson("{\"nights\":[2]}").anyOrder(), BOOKING));
    assertFalse(fits(sameJson("{\"vessel\":{\"name\":\"Kittiwake\"}}"), BOOKING));
  }

  @Test
  void jsonByPathOrPointer() throws Exception {
    assertTrue(fits(jsonAt("$.vessel.name", is("Kittiwake")), BOOKING));
    assertTrue(fits(jsonAt("/vessel/draught", atMost(4.5)), BOOKING));
    assertFalse(fits(jsonAt("$.vessel.draught", atMost(4.5)), BOOKING.replace("4.20", "\"4.2\"")));
    assertTrue(fits(jsonAt("$.nights[?@ > 1]", present()), BOOKING));
    assertTrue(fits(jsonAt("$.nights[*]", each(atMost(2))), BOOKING));
    assertTrue(fits(jsonAt("$.note", isNull()), BOOKING));
    assertTrue(fits(jsonAt("$.pier", missing()), BOOKING));
    assertTrue(fits(jsonAt("$.nights", isJson("[1, 2]")), BOOKING));
    assertFalse(fits(jsonAt("$.vessel", is("Kittiwake")), BOOKING));
    assertTrue(fits(jsonAt("", present()), BOOKING));
  }

  @Test
  void jsonBySchema() throws Exception {
    Condition schema =
        jsonSchema(
            """
            {"type": "object", "required": ["vessel"],
             "properties": {"nights": {"items": {"type": "integer", "minimum": 1}}}}\
            """);

    assertTrue(fits(schema, BOOKING));
    assertFalse(fits(schema, BOOKING.replace("[1,2]", "[0]")));
    assertFalse(fits(schema, "{}"));
    assertFalse(fits(schema, "no JSON"));
    assertThrows(IllegalArgumentException.class, () -> jsonSchema("{\"type\": 7}"));
  }

  @Test
  void xml() throws Exception {
    String cargo =
        "<c:cargo xmlns:c='urn:cargo' tons='12' kind='rope'><c:owner>Ada</c:owner></c:cargo>";
    String same =
        "<cargo kind=\"rope\" xmlns=\"urn:cargo\" tons=\"12\">\n  <!-- -->\n"
            + "  <owner> Ada </owner>\n</cargo>";

    assertTrue(fits(sameXml(cargo), same));
    assertFalse(fits(sameXml(cargo), same.replace("urn:cargo", "urn:other")));
    assertFalse(fits(sameXml(cargo), same.replace("12", "13")));
    assertFalse(fits(sameXml(cargo), same.replace("</owner>", "</owner><more/>")));
    assertFalse(fits(sameXml(cargo), "<cargo>"));
    Map<String, String> names = Map.of("c", "urn:cargo");
    assertTrue(fits(xpath("/c:cargo/@tons", atMost(12), names), same));
    assertTrue(fits(xpath("count(//c:owner)", is(1), names), same));
    assertFalse(fits(xpath("//owner", present()), same));
    assertThrows(IllegalArgumentException.class, () -> xpath("//c:owner", present()));
    assertThrows(IllegalArgumentException.class, () -> sameXml("<cargo>"));
  }

  @Test
  void soapOfBothVersions() throws Exception {
    String envelope =
        "<s:Envelope xmlns:s='%s'><s:Header/><s:Body><Declare xmlns='urn:customs'/></s:Body>"
            + "</s:Envelope>";
    HttpRequest.Builder old =
        post(envelope.formatted("http://schemas.xmlsoap.org/soap/envelope/"))
            .header("SOAPAction", "\"urn:customs:declare\"");
    HttpRequest.Builder current =
        post(envelope.formatted("http://www.w3.org/2003/05/soap-envelope"))
            .header("content-type", "application/soap+xml; action=\"urn:customs:declare\"");

    for (HttpRequest.Builder request : List.of(old, current)) {
      assertTrue(fits(soap().action(is("urn:customs:declare")).element(is("Declare")), request));
      assertTrue(fits(soap().element("urn:customs", "Declare"), request));
      assertFalse(fits(soap().element("urn:harbour", "Declare"), request));
      assertFalse(fits(soap().action(endsWith("release")), request));
    }
    assertTrue(fits(soap().version("1.1"), old));
    assertTrue(fits(soap().version("1.2"), current));
    assertFalse(fits(soap(), "<cargo/>"));
    assertThrows(IllegalArgumentException.class, () -> soap().version("2"));
  }

  @Test
  void forms() throws Exception {
    String body =
        "vessel="
            + URLEncoder.encode("Sk\u00faa & co", StandardCharsets.UTF_8)
            + "&berth=1&berth=2";

    assertTrue(fits(formField("vessel", is("Sk\u00faa & co")), body));
    assertTrue(fits(formField("berth", is(2)), body));
    assertTrue(fits(formField("pier", missing()), body));
    assertFalse(
        fits(
            formField("vessel", present()), post(body).header("content-type", "application/json")));
  }

  @Test
  void multipart() throws Exception {
    String body =
        "preamble\r\n--tide\r\ncontent-disposition: form-data; name=\"note\"\r\n\r\nline one\r\n"
            + "line two\r\n--tide\r\nContent-Disposition: form-data; name=\"manifest\"; "
            + "filename=\"cargo \\\"A\\\".json\"\r\n"
            + "Content-Type: application/json; charset=utf-8\r\n"
            + "\r\n{\"tons\": 12}\r\n--tide--\r\n";
    HttpRequest.Builder request =
        post(body).header("content-type", "multipart/form-data; boundary=tide");

    assertTrue(fits(part("note").content(textBody(is("line one\r\nline two"))), request));
    assertTrue(
        fits(
            part("manifest")
                .fileName(is("cargo \"A\".json"))
                .contentType(is("application/json"))
                .content(jsonAt("$.tons", is(12))),
            request));
    assertFalse(fits(part("manifest").content(jsonAt("$.tons", is(13))), request));
    assertFalse(fits(part("note").fileName(present()), request));
    assertFalse(fits(part("cargo"), request));
    assertFalse(fits(part("note"), post(body)));
    assertFalse(
        fits(part("note"), post(body).header("content-type", "multipart/form-data; boundary=x")));
  }

  @Test
  void textAndBytes() throws Exception {
    assertTrue(fits(textBody(contains("wake")), "Kittiwake"));
    assertTrue(fits(sameText("a\nb"), "a\nb"));
    assertFalse(fits(sameText("a\nb"), "a\r\nb"));
    byte[] bytes = {0, 1, (byte) 200, -1};
    assertTrue(fits(sameBytes(bytes), post(bytes)));
    assertFalse(fits(sameBytes(bytes), post(new byte[] {0, 1})));
  }

  @Test
  void contentEncodingsAreUndoneAndCharsetsHonoured() throws Exception {
    byte[] plain = BOOKING.getBytes(StandardCharsets.UTF_8);
    Condition condition = sameJson(BOOKING);

    assertTrue(fits(condition, post(gzip(plain)).header("content-encoding", "gzip")));
    assertTrue(fits(condition, post(deflate(plain)).header("content-encoding", "deflate")));
    assertFalse(fits(condition, post(plain).header("content-encoding", "gzip")));
    assertFalse(fits(condition, post(plain).header("content-encoding", "br")));
    Charset latin = StandardCharsets.ISO_8859_1;
    assertTrue(
        fits(
            textBody(is("Sk\u00faa")),
            post("Sk\u00faa".getBytes(latin))
                .header("content-type", "text/plain; charset=iso-8859-1")));
    assertTrue(
        fits(
            sameXml("<v>\u00fa</v>"),
            post("<?xml version='1.0' encoding='iso-8859-1'?><v>\u00fa</v>".getBytes(latin))));
  }

  @Test
  void graphQl() throws Exception {
    String document =
        "query VesselByName($name: String!) { ...top } "
            + "fragment top on Query { found: vessel(name: $name) { id } }";
    String variables = ",\"variables\":{\"name\":\"Kittiwake\"}";
    String named = graphQl(document, ",\"operationName\":\"VesselByName\"" + variables);
    Condition vessel =
        graphql()
            .query()
            .operation("VesselByName")
            .variable("name", is("Kittiwake"))
            .field("vessel");

    assertTrue(fits(vessel, named));
    assertTrue(fits(vessel, graphQl(document, variables)));
    assertTrue(fits(vessel, "[" + graphQl("{ piers }", "") + "," + named + "]"));
    assertTrue(
        fits(
            vessel,
            HttpRequest.newBuilder(
                URI.create(
                    "https://vessels.example/graphql?query="
                        + URLEncoder.encode(document, StandardCharsets.UTF_8)
                        + "&variables=%7B%22name%22%3A%22Kittiwake%22%7D"))));
    assertFalse(fits(graphql().mutation(), named));
    assertFalse(fits(graphql().field("found"), named));
    assertFalse(fits(graphql().variable("$.name", is("Skua")), named));
    assertFalse(fits(graphql().operation("Other"), named));
    assertFalse(fits(graphql(), graphQl("query {", "")));
    assertFalse(fits(graphql(), BOOKING));
    assertTrue(fits(graphql().mutation().field("berth"), graphQl("mutation { berth { id } }", "")));
    assertTrue(fits(graphql().subscription(), graphQl("subscription { tide }", "")));
  }

  private static String graphQl(String document, String more) {
    return "{\"query\":\"" + document + "\"" + more + "}";
  }

  private static boolean fits(Condition condition, String body) throws Exception {
    return fits(condition, post(body));
  }

  private static boolean fits(Condition condition, HttpRequest.Builder request) throws Exception {
    return probe.fits(condition, request);
  }

  private static HttpRequest.Builder post(String body) {
    return post(body.getBytes(StandardCharsets.UTF_8));
  }

  private static HttpRequest.Builder post(byte[] body) {
    return HttpRequest.newBuilder(URI.create("https://vessels.example/graphql"))
        .POST(BodyPublishers.ofByteArray(body));
  }

  private static byte[] gzip(byte[] plain) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    write(new GZIPOutputStream(bytes), plain);
    return bytes.toByteArray();
  }

  private static byte[] deflate(byte[] plain) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    write(new DeflaterOutputStream(bytes), plain);
    return bytes.toByteArray();
  }

  private static void write(OutputStream out, byte[] bytes) throws IOException {
    try (out) {
      out.write(bytes);
    }
  }
}
