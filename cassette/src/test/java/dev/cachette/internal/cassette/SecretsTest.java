// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Nothing of a secret stands in the bytes that are written, wherever it stood in the call. */
@Tag("once")
class SecretsTest {

  private static final String SIMPLE = "s3cr3t-Kx7q9Zt4Vb2n";
  private static final String TRICKY = "K/7+q=9 Z\"t&4<V'b2nö";

  static Stream<Placement> usualPlaces() throws IOException {
    return Placement.read("usual-places.http", SIMPLE);
  }

  static Stream<Placement> simpleAnywhere() throws IOException {
    return Placement.read("anywhere.http", SIMPLE);
  }

  static Stream<Placement> trickyAnywhere() throws IOException {
    return Placement.read("anywhere.http", TRICKY);
  }

  @ParameterizedTest
  @MethodSource("usualPlaces")
  void theUsualPlacesNeedNoWord(Placement placement) throws IOException {
    byte[] file = written(CassetteSettings.defaults(), placement.exchange());
    assertFalse(new Leak(SIMPLE).isIn(file), () -> text(file));
    assertTrue(text(file).contains("{{"), () -> text(file));
  }

  static Stream<Placement> byShape() throws IOException {
    return Placement.readWithSecrets("by-shape.http");
  }

  static Stream<Placement> ordinary() throws IOException {
    return Placement.read("ordinary.http", "none");
  }

  @ParameterizedTest
  @MethodSource("byShape")
  void shapesAndNamesAreFoundInEveryFormat(Placement placement) throws IOException {
    byte[] file = written(CassetteSettings.defaults(), placement.exchange());
    assertFalse(new Leak(placement.secret()).isIn(file), () -> text(file));
    assertTrue(new Leak(placement.secret()).isIn(placement.exchange()), "it was there before");

    LoadedCassette replay =
        new LoadedCassette(
            "harbour", CassetteSettings.defaults(), RecordingMode.REPLAY, recordings(file));
    replay.replay(placement.exchange().request()).orElseThrow();
  }

  @Test
  void theGuideHasTheseFigures() throws IOException {
    String page = Files.readString(Path.of("../docs/guide/secrets.md"));
    long placements = byShape().count() + usualPlaces().count();

    assertTrue(page.contains("| placements of secrets | " + placements + " |"), "" + placements);
    assertTrue(page.contains("| " + ordinary().count() + " | 0 changed |"), page);
  }

  @Test
  void ordinaryExchangesAreUnchanged() throws IOException {
    List<String> changed = new ArrayList<>();
    int all = 0;
    for (Placement placement : ordinary().toList()) {
      all++;
      byte[] file = written(CassetteSettings.defaults(), placement.exchange());
      if (text(file).contains("{{")) {
        changed.add(placement + "\n" + text(file));
      }
    }
    assertTrue(all >= 200, "only " + all);
    assertEquals(0, changed.size(), () -> String.join("\n", changed));
  }

  @ParameterizedTest
  @MethodSource({"simpleAnywhere", "trickyAnywhere"})
  void aNamedSecretIsFoundAnywhereAndFilledAgain(Placement placement) throws IOException {
    CassetteSettings settings =
        CassetteSettings.defaults().redact("HARBOUR_KEY", placement.secret());
    byte[] file = written(settings, placement.exchange());
    assertFalse(new Leak(placement.secret()).isIn(file), () -> text(file));
    assertTrue(new Leak(placement.secret()).isIn(placement.exchange()), "it was there before");

    LoadedCassette replay =
        new LoadedCassette("harbour", settings, RecordingMode.REPLAY, recordings(file));
    Exchange replayed = replay.replay(placement.exchange().request()).orElseThrow().exchange();
    assertEquals(
        Placement.said(placement.exchange().response().orElseThrow()),
        Placement.said(replayed.response().orElseThrow()));
  }

  @Test
  void likelySecretsAreRedactedWithAWarning() throws IOException {
    String likely = "9f8Gh2Lq0PzX7vBn3MkW5tRy";
    Placement placement =
        Placement.of(
            "POST https://tides.example/v1/notes\ncontent-type: text/plain\n\n"
                + "the desk's key is "
                + likely);
    LoadedCassette cassette = recorded(CassetteSettings.defaults(), placement.exchange());
    assertFalse(cassette.finished().toString().contains(likely));
    String warning = cassette.warning().orElseThrow();
    assertTrue(warning.contains("exchange 1, POST https://tides.example/v1/notes"), warning);
    assertTrue(warning.contains("the request, body"), warning);
    assertFalse(warning.contains(likely), warning);

    CassetteSettings strict = CassetteSettings.defaults().redaction(how -> how.strict());
    Placement harmless = Placement.of("GET https://tides.example/v1/high");
    LoadedCassette refusing = recorded(strict, placement.exchange());
    refusing.keep(harmless.exchange());
    assertEquals(List.of(harmless.exchange()), refusing.finished());
    String refused = refusing.refusal().orElseThrow().getMessage();
    assertTrue(refused.contains("the request, body"), refused);
    assertFalse(refused.contains(likely), refused);

    LoadedCassette allowing =
        recorded(strict.redaction(how -> how.allowing(likely.substring(4))), placement.exchange());
    assertTrue(allowing.finished().get(0).request().text().contains(likely));
    assertTrue(allowing.warning().isEmpty());
  }

  @Test
  void largeBodiesAreLookedThroughToTheirEnd() throws IOException {
    int many = 50_000;
    for (String body :
        List.of(
            "{\"note\":\"" + "\\\"".repeat(many) + SIMPLE + "\"}",
            "{\"password\":\"" + "\\\"".repeat(many) + "\"," + "\"a\":\"" + SIMPLE + "\"}",
            "%C3%B6".repeat(many) + SIMPLE,
            "a".repeat(many * 4) + "." + SIMPLE,
            "tides ".repeat(many) + SIMPLE,
            Base64.getEncoder()
                .encodeToString(
                    ("{\"a\":1}".repeat(many) + SIMPLE).getBytes(StandardCharsets.UTF_8)))) {
      Placement placement =
          Placement.of("POST https://tides.example/v1\ncontent-type: application/json\n\n" + body);
      CassetteSettings settings = CassetteSettings.defaults().redact("HARBOUR_KEY", SIMPLE);
      byte[] file = written(settings, placement.exchange());
      assertFalse(new Leak(SIMPLE).isIn(file));
      new LoadedCassette("harbour", settings, RecordingMode.REPLAY, recordings(file))
          .replay(placement.exchange().request())
          .orElseThrow();
    }
  }

  /** Bytes that are not UTF-8 make a body binary, but not free of secrets. */
  @ParameterizedTest
  @ValueSource(ints = {0, 3_000_000})
  void secretsInBinaryContentAreFoundInTheirFormat(int fileSize) throws IOException {
    byte[] random = new byte[fileSize];
    new Random(18).nextBytes(random);
    String file = "\u00ff\u0001" + new String(random, StandardCharsets.ISO_8859_1);
    String secret = "M\u00f6we-correct-horse-4711";
    for (String[] each :
        new String[][] {
          {
            "multipart/form-data; boundary=xyz",
            "--xyz\r\nContent-Disposition: form-data; name=\"plan\"; filename=\"p\"\r\n\r\n"
                + file
                + "\r\n--xyz\r\nContent-Disposition: form-data; name=\"password\"\r\n\r\n"
                + secret
                + "\r\n--xyz--\r\n"
          },
          {"application/json", "{\"password\": \"" + secret + "\", \"day\": \"M\u00e4rz\"}"},
          {"application/x-www-form-urlencoded", "day=M\u00e4rz&password=" + secret},
          {"application/octet-stream", file + "\u0000password=" + secret + "\u0000" + file},
          {"application/octet-stream", file + "\u0000api_key: " + secret + "\n" + file},
        }) {
      Request request =
          new Request(
              "POST",
              Uri.parse("https://berths.example/v1/plans"),
              Headers.none().with("content-type", each[0]),
              Body.of(each[1].getBytes(StandardCharsets.ISO_8859_1)));
      Exchange exchange =
          Exchange.failed(Instant.EPOCH, Duration.ZERO, request, Fault.Kind.NO_RESPONSE);
      LoadedCassette cassette = recorded(CassetteSettings.defaults(), exchange);
      String written =
          new String(
              cassette.finished().get(0).request().body().bytes(), StandardCharsets.ISO_8859_1);
      assertFalse(written.contains("correct-horse"), each[0]);
      assertTrue(written.contains("{{"), each[0]);
    }
  }

  @Test
  void shortSecretsAreRedactedAtTheirPlaceOnly() throws IOException {
    Placement placement =
        Placement.of(
            "POST https://tides.example/v1/eu-central-1\ncookie: region=eu-central-1\n"
                + "content-type: application/json\n\n{\"password\":\"correcthorse\","
                + "\"hint\":\"correcthorse\",\"region\":\"eu-central-1\"}");
    String file = text(written(CassetteSettings.defaults(), placement.exchange()));
    assertTrue(file.contains("https://tides.example/v1/eu-central-1"), file);
    assertTrue(file.contains("region={{region}}"), file);
    assertTrue(file.contains("\\\"region\\\":\\\"eu-central-1\\\""), file);
    assertFalse(file.contains("correcthorse"), file);
  }

  @Test
  void exceptedNamesAreNotRedacted() throws IOException {
    Placement placement =
        Placement.of("GET https://tides.example/v1/tides?key=marrow\ncookie: unit=metres");
    byte[] file =
        written(
            CassetteSettings.defaults().redaction(how -> how.except("key", "unit")),
            placement.exchange());
    assertTrue(text(file).contains("key=marrow"), () -> text(file));
    assertTrue(text(file).contains("unit=metres"), () -> text(file));
  }

  private static LoadedCassette recorded(CassetteSettings settings, Exchange exchange)
      throws IOException {
    LoadedCassette cassette =
        new LoadedCassette("harbour", settings, RecordingMode.CREATE, recordings(new byte[0]));
    cassette.keep(exchange);
    return cassette;
  }

  static byte[] written(CassetteSettings settings, Exchange exchange) throws IOException {
    LoadedCassette cassette = recorded(settings, exchange);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    RecordedExchanges nothing = recordings(new byte[0]);
    new Merge(nothing, cassette.finished(), false, Varying.none())
        .writeTo(out, nothing, Instant.EPOCH, "1");
    return out.toByteArray();
  }

  static RecordedExchanges recordings(byte[] file) throws IOException {
    HarIndex index =
        file.length == 0
            ? HarIndex.empty("harbour.har")
            : HarIndex.read("harbour.har", new ByteArrayInputStream(file));
    return new RecordedExchanges(
        index,
        entry -> new String(file, (int) entry.offset(), entry.length(), StandardCharsets.UTF_8));
  }

  private static String text(byte[] file) {
    return new String(file, StandardCharsets.UTF_8);
  }
}
