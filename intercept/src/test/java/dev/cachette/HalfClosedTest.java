// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Values.pattern;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import javax.net.ssl.SSLSocket;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A client that has sent everything, and says so, still gets its answer. */
@Timeout(60)
class HalfClosedTest {

  private static final int LARGE = 20 << 20;

  private Cachette net;

  @BeforeEach
  void open() {
    net =
        Cachette.open(
            Settings.defaults().withoutInterception().unexpectedCalls(UnexpectedCalls.WARN));
    net.stub("GET /plain").answer(text("plain"));
    net.stub("GET /pattern").header("host", pattern("[a-z.]+")).answer(text("pattern"));
    net.stub("GET /computed").answer(computed(received -> text("computed")));
    net.stub("GET /delayed").answer(text("delayed").delayed(Duration.ofMillis(300)));
    net.stub("GET /slow").answer(text("slow").inPieces(2, Duration.ofMillis(100)));
    net.stub("GET /large").answer(bytes(new byte[LARGE]));
    net.stub("POST /body").answer(text("body"));
  }

  @AfterEach
  void close() {
    net.close();
  }

  @ParameterizedTest
  @CsvSource({
    "plain, plain",
    "pattern, pattern",
    "computed, computed",
    "delayed, delayed",
    "slow, slow",
    "unexpected, Unexpected call: GET"
  })
  void itsAnswerComes(String path, String expected) throws Exception {
    for (int at = 0; at < 5; at++) {
      String response = send("GET /" + path + " HTTP/1.1\r\nHost: tides.example\r\n\r\n");

      assertTrue(response.contains(expected), () -> path + ": " + response);
    }
  }

  @Test
  void aLargeOneComesCompletely() throws Exception {
    String response = send("GET /large HTTP/1.1\r\nHost: tides.example\r\n\r\n");

    assertEquals(LARGE, response.length() - response.indexOf("\r\n\r\n") - 4);
  }

  @Test
  void soDoAllOfSeveral() throws Exception {
    String one = "GET /delayed HTTP/1.1\r\nHost: tides.example\r\n\r\n";
    String other = "POST /body HTTP/1.1\r\nHost: tides.example\r\nContent-Length: 2\r\n\r\n{}";

    String responses = send(one + other + one);

    assertEquals(4, responses.split("HTTP/1.1 200 OK").length, responses);
    assertTrue(responses.endsWith("delayed"), responses);
  }

  /** A close_notify ends one direction only (RFC 8446 section 6.1). */
  @ParameterizedTest
  @CsvSource({"plain, plain", "pattern, pattern", "delayed, delayed", "slow, slow"})
  void itsAnswerComesOverTls(String path, String expected) throws Exception {
    for (int at = 0; at < 5; at++) {
      String response =
          send("GET /" + path + " HTTP/1.1\r\nHost: tides.example\r\n\r\n", this::secure);

      assertTrue(response.contains(expected), () -> path + ": " + response);
    }
  }

  private Socket secure(String host, int port) throws Exception {
    SSLSocket socket =
        (SSLSocket)
            AddressesTest.trusting(net.proxy().authorityPem())
                .getSocketFactory()
                .createSocket(host, port);
    socket.setEnabledProtocols(new String[] {"TLSv1.3"});
    return socket;
  }

  /** Opens a connection. */
  @FunctionalInterface
  private interface Connecting {
    Socket to(String host, int port) throws Exception;
  }

  private String send(String bytes) throws Exception {
    return send(bytes, Socket::new);
  }

  /** Returns what comes until Cachette closes the connection, too. */
  private String send(String bytes, Connecting connecting) throws Exception {
    URI at = URI.create(net.baseUrl());
    try (Socket socket = connecting.to(at.getHost(), at.getPort())) {
      socket.setSoTimeout(20_000);
      socket.getOutputStream().write(bytes.getBytes(StandardCharsets.ISO_8859_1));
      socket.shutdownOutput();
      return new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
    }
  }
}
