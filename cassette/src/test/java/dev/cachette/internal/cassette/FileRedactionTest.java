// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Secrets in files that a browser has exported, which repeat them in several members. */
class FileRedactionTest {

  private static final String SECRET = "s3cr3t-Kx7q9Zt4Vb2n";
  private static final ObjectMapper MAPPER = new ObjectMapper();

  static Stream<Placement> placements() throws IOException {
    return Stream.concat(
        Placement.read("usual-places.http", SECRET), Placement.readWithSecrets("by-shape.http"));
  }

  static Stream<Placement> anywhere() throws IOException {
    return Placement.read("anywhere.http", SECRET);
  }

  static Stream<Placement> ordinary() throws IOException {
    return Placement.read("ordinary.http", "none");
  }

  @ParameterizedTest
  @MethodSource("placements")
  void nothingOfASecretIsLeft(Placement placement) throws IOException {
    assertRedacted(placement, Redaction.byDefault());
  }

  @ParameterizedTest
  @MethodSource("anywhere")
  void nothingOfANamedSecretIsLeft(Placement placement) throws IOException {
    assertRedacted(placement, Redaction.byDefault().secret("HARBOUR_KEY", placement.secret()));
  }

  private static void assertRedacted(Placement placement, Redaction rules) throws IOException {
    byte[] exported = exported(placement.exchange());
    // Bodies in other encodings are not in the file.
    boolean isThere = new Leak(placement.secret()).isIn(exported);

    byte[] redacted = redacted(exported, rules, isThere ? 1 : 0);

    assertFalse(new Leak(placement.secret()).isIn(redacted), () -> text(redacted));
    assertEquals(text(redacted), text(redacted(redacted, rules, 0)), "redacting twice");
  }

  @ParameterizedTest
  @MethodSource("ordinary")
  void whatIsNoSecretStays(Placement placement) throws IOException {
    byte[] exported = exported(placement.exchange());
    assertEquals(
        MAPPER.readTree(exported), MAPPER.readTree(redacted(exported, Redaction.byDefault(), 0)));
  }

  static Stream<Placement> recordable() throws IOException {
    return Stream.concat(
        placements(),
        Stream.of(
            Placement.of("GET https://desk.example/cb?code=Kx7q9Zt4Vb2n&state=Vb2nKx7q9Zt4"),
            Placement.of("GET https://desk.example/cb?state=Vb2nKx7q9Zt4&code=Kx%2F7q9Zt4%3D"),
            Placement.of("GET https://desk.example/cb?id_token=Kx7q9Zt4Vb2n&nonce=Vb2nKx7q")));
  }

  @ParameterizedTest
  @MethodSource("recordable")
  void nothingIsLeftToRedactInWhatWasRecorded(Placement placement) throws IOException {
    byte[] recorded = SecretsTest.written(CassetteSettings.defaults(), placement.exchange());
    assertEquals(text(recorded), text(redacted(recorded, Redaction.byDefault(), 0)));
  }

  @ParameterizedTest
  @EnumSource(Placeholder.Form.class)
  void placeholdersOfEveryFormStay(Placeholder.Form form) throws IOException {
    String placeholder = Placeholder.of("password", form);
    byte[] file = exported(plain("{\"a\": \"b " + placeholder + "\"}"));
    assertEquals(MAPPER.readTree(file), MAPPER.readTree(redacted(file, Redaction.byDefault(), 0)));
  }

  @Test
  void whatOnlyLooksLikeAPlaceholderIsRedacted() throws IOException {
    byte[] redacted =
        redacted(
            exported(plain("{\"a\": \"b {{password:" + SECRET + "}}\"}")),
            Redaction.byDefault(),
            1);
    assertFalse(new Leak(SECRET).isIn(redacted), () -> text(redacted));
  }

  @Test
  void aSecretOfALaterExchangeIsFoundInEarlierOnesAndInTheFrame() throws IOException {
    ObjectNode har = (ObjectNode) MAPPER.readTree(exported(plain("note=" + SECRET)));
    ArrayNode entries = (ArrayNode) har.path("log").path("entries");
    entries.add(
        MAPPER
            .readTree(exported(plain("{\"password\": \"" + SECRET + "\"}")))
            .at("/log/entries/0"));
    har.put("_about", "exported with " + SECRET);
    ((ObjectNode) har.path("log")).put("comment", "by " + SECRET).put("_size", 7);

    byte[] redacted = redacted(MAPPER.writeValueAsBytes(har), Redaction.byDefault(), 2);

    assertFalse(new Leak(SECRET).isIn(redacted), () -> text(redacted));
    assertEquals(7, MAPPER.readTree(redacted).at("/log/_size").asInt());
  }

  private static Exchange plain(String body) {
    return Placement.of("POST https://berths.example/v1/notes\n\n" + body).exchange();
  }

  private static byte[] redacted(byte[] file, Redaction rules, int changed) throws IOException {
    RecordedExchanges recordings = SecretsTest.recordings(file);
    FileRedaction redaction = FileRedaction.begin(recordings, rules);
    IntStream.range(0, recordings.size()).forEach(redaction::lookAt);
    redaction.finish();
    assertTrue(redaction.changed() >= changed, () -> text(file));
    assertEquals(redaction.changed(), redaction.changedAt().size());
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    redaction.writeTo(
        out, IntStream.range(0, redaction.size()).mapToObj(redaction::entry).toList());
    return out.toByteArray();
  }

  private static String text(byte[] file) {
    return new String(file, StandardCharsets.UTF_8);
  }

  /** Writes a file as browsers do: with parameters, fields and cookies in members of their own. */
  private static byte[] exported(Exchange exchange) throws IOException {
    ObjectNode root = JsonNodeFactory.instance.objectNode();
    ObjectNode log = root.putObject("log").put("version", "1.2");
    log.putObject("creator").put("name", "A Browser").put("version", "1");
    ObjectNode entry = log.putArray("entries").addObject();
    entry.put("startedDateTime", "2031-04-02T04:10:00.000Z").put("time", 12);
    ObjectNode request = entry.putObject("request");
    request.put("method", exchange.request().method());
    request.put("url", exchange.request().uri().toJavaUri().toString());
    request.put("httpVersion", "HTTP/1.1");
    message(request, exchange.request().headers());
    pairs(request.putArray("queryString"), exchange.request().uri().query());
    if (!exchange.request().body().isEmpty()) {
      body(request.putObject("postData"), exchange.request().headers(), exchange.request().body());
    }
    Response response = exchange.response().orElseThrow();
    ObjectNode answer = entry.putObject("response").put("status", response.status());
    answer.put("statusText", "").put("httpVersion", "HTTP/1.1").put("redirectURL", "");
    message(answer, response.headers());
    body(answer.putObject("content"), response.headers(), response.body());
    entry.putObject("cache");
    entry.putObject("timings").put("send", 0).put("wait", 12).put("receive", 0);
    return MAPPER.writeValueAsBytes(root);
  }

  private static void message(ObjectNode message, Headers headers) {
    ArrayNode fields = message.putArray("headers");
    headers.forEach(it -> fields.addObject().put("name", it.name()).put("value", it.value()));
    ArrayNode cookies = message.putArray("cookies");
    for (String name : new String[] {"cookie", "set-cookie"}) {
      for (String header : headers.all(name)) {
        for (String pair : name.equals("cookie") ? header.split("; ") : header.split(";", 2)) {
          int equals = pair.indexOf('=');
          if (equals > 0 && !pair.startsWith(" ")) {
            cookies
                .addObject()
                .put("name", pair.substring(0, equals))
                .put("value", pair.substring(equals + 1));
          }
        }
      }
    }
  }

  private static void pairs(ArrayNode list, Query query) {
    for (String name : query.names()) {
      query.all(name).forEach(it -> list.addObject().put("name", name).put("value", it));
    }
  }

  private static void body(ObjectNode target, Headers headers, Body body) {
    Content content = Content.of(headers, body);
    String type = headers.first("content-type").orElse("");
    target.put("mimeType", type).put("text", content.text());
    if (target.path("mimeType").asText().contains("form-urlencoded")) {
      pairs(target.putArray("params"), content.form());
    }
    if (!content.encodingProblem().isEmpty()) {
      target.put("text", "");
    }
  }
}
