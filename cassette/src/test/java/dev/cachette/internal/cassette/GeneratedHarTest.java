// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import de.sstoehr.harreader.HarReader;
import dev.cachette.Generator;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Percent;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Cassettes with generated exchanges. */
@Tag("once")
class GeneratedHarTest {

  @Test
  void exchangesAreReadAsTheyWereWritten() throws IOException {
    for (int seed = 0; seed < 200; seed++) {
      Generator generator = new Generator(seed);
      List<Exchange> exchanges = new ArrayList<>();
      for (int number = generator.below(5); number >= 0; number--) {
        exchanges.add(exchange(generator, exchanges.size()));
      }

      RecordedExchanges read = SecretsTest.recordings(written(exchanges));

      assertEquals(exchanges.size(), read.size());
      for (int at = 0; at < exchanges.size(); at++) {
        assertSame(exchanges.get(at), read.get(at), "seed " + seed + ", exchange " + at);
      }
    }
  }

  /** HAR 1.2, as other programs read it. */
  @Test
  void anotherReaderFindsTheSameExchanges() throws Exception {
    for (int seed = 0; seed < 50; seed++) {
      Generator generator = new Generator(seed);
      List<Exchange> exchanges = new ArrayList<>();
      for (int number = generator.below(5); number >= 0; number--) {
        exchanges.add(exchange(generator, exchanges.size()));
      }

      var entries =
          new HarReader()
              .readFromString(new String(written(exchanges), StandardCharsets.UTF_8))
              .getLog()
              .getEntries();

      assertEquals(exchanges.size(), entries.size());
      for (int at = 0; at < entries.size(); at++) {
        Exchange wanted = exchanges.get(at);
        assertEquals(wanted.request().method(), entries.get(at).getRequest().getRawMethod());
        assertEquals(wanted.request().uri().toString(), entries.get(at).getRequest().getUrl());
        assertEquals(
            wanted.response().orElseThrow().status(), entries.get(at).getResponse().getRawStatus());
      }
    }
  }

  @Test
  void aCutFileIsRefusedAndNothingElseIsThrown() throws IOException {
    byte[] whole = written(List.of(exchange(new Generator(1), 0), exchange(new Generator(2), 1)));
    int end = new String(whole, StandardCharsets.UTF_8).stripTrailing().length();
    for (int length = 1; length < Math.min(whole.length, end) - 1; length++) {
      byte[] cut = Arrays.copyOf(whole, length);
      assertThrows(
          CassetteException.class,
          () -> HarIndex.read("harbour.har", new ByteArrayInputStream(cut)),
          "cut after " + length);
    }
  }

  /** A byte that was changed is refused, or gives other exchanges, but no other failure. */
  @Test
  void aChangedByteIsRefusedOrRead() throws IOException {
    byte[] whole = written(List.of(exchange(new Generator(3), 0)));
    Generator generator = new Generator(4);
    for (int number = 0; number < 5_000; number++) {
      byte[] changed = whole.clone();
      changed[generator.below(changed.length)] = (byte) generator.below(256);
      try {
        SecretsTest.recordings(changed).forEach(Exchange::toString);
      } catch (CassetteException refused) {
        assertEquals(
            "harbour.har",
            refused
                .getMessage()
                .replaceAll(".*?(harbour\\.har).*", "$1")
                .lines()
                .findFirst()
                .orElse(""));
      }
    }
  }

  private static void assertSame(Exchange wanted, Exchange read, String where) {
    assertEquals(wanted.request().method(), read.request().method(), where);
    assertEquals(wanted.request().uri().toString(), read.request().uri().toString(), where);
    assertEquals(wanted.request().headers(), read.request().headers(), where);
    assertArrayEquals(
        wanted.request().body().bytes(), read.request().body().bytes(), where + ", request");
    Response response = wanted.response().orElseThrow();
    assertEquals(response.status(), read.response().orElseThrow().status(), where);
    assertEquals(response.headers(), read.response().orElseThrow().headers(), where);
    assertArrayEquals(response.body().bytes(), read.response().orElseThrow().body().bytes(), where);
  }

  private static byte[] written(List<Exchange> exchanges) throws IOException {
    RecordedExchanges nothing = SecretsTest.recordings(new byte[0]);
    LoadedCassette cassette =
        new LoadedCassette("harbour", CassetteSettings.defaults(), RecordingMode.CREATE, nothing);
    exchanges.forEach(cassette::keep);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    new Merge(nothing, cassette.finished(), false, Varying.none())
        .writeTo(out, nothing, Instant.EPOCH, "1");
    return out.toByteArray();
  }

  private static Exchange exchange(Generator generator, int number) {
    String path = "/" + Percent.encodeSegment(generator.text()) + "/" + generator.word(5);
    String query = generator.one("", "?a=1", "?a=%2B+x&a=2&b", "?x=" + Percent.encodeForm("ü&"));
    Headers headers = headers(generator);
    Body sent = generator.below(2) == 0 ? Body.empty() : body(generator);
    return Exchange.answered(
        Instant.EPOCH.plusSeconds(number),
        Duration.ofMillis(generator.below(1_000)),
        generator.one("HTTP/1.1", "HTTP/2"),
        new Request(
            generator.one("GET", "POST", "PATCH", "M-SEARCH"),
            Uri.parse("https://tides.example" + path + query),
            headers,
            sent),
        new Response(200 + generator.below(400), headers(generator), body(generator)));
  }

  private static Headers headers(Generator generator) {
    List<Header> fields = new ArrayList<>();
    for (int number = generator.below(4); number > 0; number--) {
      fields.add(new Header("x-" + generator.word(3), generator.one("a", "", "b, c", "\"q\"")));
    }
    fields.add(
        new Header(
            "content-type",
            generator.one(
                "application/json", "text/plain", "text/plain; charset=ISO-8859-1", "image/png")));
    return Headers.of(fields);
  }

  private static Body body(Generator generator) {
    if (generator.below(3) > 0) {
      return Body.of(generator.json(3).toString());
    }
    byte[] bytes = new byte[generator.below(60)];
    for (int at = 0; at < bytes.length; at++) {
      bytes[at] = (byte) generator.below(256);
    }
    return Body.of(bytes);
  }
}
