// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Bodies.jsonAt;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** Small bodies that are large when they are decoded are refused, as large ones are. */
class EncodedBodiesTest {

  private static final int MEBIBYTE = 1 << 20;
  private static final String URL = "https://charts.example/bay";

  private interface Encoding {

    OutputStream around(OutputStream bytes) throws IOException;
  }

  static Stream<Arguments> bombs() throws IOException {
    byte[] gzip = zeros(1024, GZIPOutputStream::new);
    return Stream.of(
        Arguments.of("gzip", gzip),
        Arguments.of("x-gzip", gzip),
        Arguments.of("GZIP", gzip),
        Arguments.of("deflate", zeros(64, DeflaterOutputStream::new)),
        Arguments.of("deflate", zeros(64, EncodedBodiesTest::raw)),
        Arguments.of(
            "gzip, gzip", zeros(64, out -> new GZIPOutputStream(new GZIPOutputStream(out)))),
        Arguments.of(
            "deflate, gzip",
            zeros(64, out -> new DeflaterOutputStream(new GZIPOutputStream(out)))));
  }

  @ParameterizedTest
  @MethodSource("bombs")
  void aBombIsRefused(String encoding, byte[] bomb) throws Exception {
    Cachette net = Cachette.open(Settings.defaults().maxRequestBody(MEBIBYTE));
    net.stub("POST " + URL).body(jsonAt("$.depth", 4)).answer(text("never"));
    net.stub("GET " + URL).answer(text("fine"));

    HttpResponse<String> refused = post(encoding, bomb);

    assertEquals(413, refused.statusCode());
    assertTrue(refused.body().contains("more than 1,048,576 when it is decoded"), refused::body);
    assertTrue(refused.body().contains("Settings.maxRequestBody(bytes)"));
    assertEquals("fine", Calling.get(URL).body());
    assertThrows(AssertionFailedError.class, net::close);
  }

  @Test
  void whatIsWithinTheLimitIsRead() throws Exception {
    try (Cachette net = Cachette.open(Settings.defaults().maxRequestBody(MEBIBYTE))) {
      net.stub("POST " + URL).body(jsonAt("$.depth", 4)).answer(text("read"));
      ByteArrayOutputStream bytes = new ByteArrayOutputStream();
      try (OutputStream out = new GZIPOutputStream(bytes)) {
        out.write(("{\"depth\":4}" + " ".repeat(MEBIBYTE - 11)).getBytes());
      }

      assertEquals("read", post("gzip", bytes.toByteArray()).body());
    }
  }

  private static OutputStream raw(OutputStream out) {
    return new DeflaterOutputStream(out, new Deflater(Deflater.DEFAULT_COMPRESSION, true));
  }

  private static byte[] zeros(int mebibytes, Encoding encoding) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    byte[] zeros = new byte[MEBIBYTE];
    try (OutputStream out = encoding.around(bytes)) {
      for (int at = 0; at < mebibytes; at++) {
        out.write(zeros);
      }
    }
    return bytes.toByteArray();
  }

  private static HttpResponse<String> post(String encoding, byte[] body) throws Exception {
    return Calling.send(
        HttpClient.newHttpClient(),
        HttpRequest.newBuilder(URI.create(URL))
            .header("content-encoding", encoding)
            .POST(BodyPublishers.ofByteArray(body))
            .build());
  }
}
