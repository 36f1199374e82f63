// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Socket;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLParameters;
import javax.net.ssl.SSLSocket;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** The explanation of a failed handshake names its real cause, not always the trust. */
class HandshakeCauseTest {

  private static final String HOST = "tides.example";

  /** TLS_AES_128_GCM_SHA256, TLS_ECDHE_ECDSA_WITH_AES_128_GCM_SHA256. */
  private static final int[] USUAL_SUITES = {0x1301, 0xc02b};

  private static final int TLS_1_0 = 0x0301;
  private static final int TLS_1_2 = 0x0303;

  /** A made-up number, which no server knows. */
  private static final int[] UNKNOWN_SUITE = {0x00fe};

  static Stream<Arguments> attempts() {
    return Stream.of(
        Arguments.of("have no TLS version in common", hello(TLS_1_0, USUAL_SUITES)),
        Arguments.of("have no cipher suite", hello(TLS_1_2, UNKNOWN_SUITE)),
        Arguments.of("offers neither h2 nor http/1.1", offering("h3")));
  }

  @ParameterizedTest
  @MethodSource("attempts")
  void theCauseIsNamed(String cause, Consumer<String> attempt) {
    Cachette net = Cachette.open();
    net.stub("GET https://tides.example/v1").answer(text("04:10"));
    attempt.accept(HOST);

    String message = assertThrows(AssertionFailedError.class, net::close).getMessage();

    assertTrue(message.contains("The TLS handshake with tides.example:443 failed"), message);
    assertTrue(message.contains(cause), message);
  }

  private static Consumer<String> offering(String protocol) {
    return host -> {
      try (SSLSocket client =
          (SSLSocket) SSLContext.getDefault().getSocketFactory().createSocket(host, 443)) {
        SSLParameters parameters = client.getSSLParameters();
        parameters.setApplicationProtocols(new String[] {protocol});
        client.setSSLParameters(parameters);
        assertThrows(SSLException.class, client::startHandshake);
      } catch (Exception failed) {
        throw new IllegalStateException(failed);
      }
    };
  }

  /** Sends a ClientHello (RFC 5246 section 7.4.1.2) without extensions, and reads the alert. */
  private static Consumer<String> hello(int version, int... suites) {
    return host -> {
      try (Socket client = new Socket(host, 443)) {
        client.setSoTimeout(20_000);
        client.getOutputStream().write(record(version, suites));
        client.getInputStream().readAllBytes();
      } catch (IOException failed) {
        throw new UncheckedIOException(failed);
      }
    };
  }

  private static byte[] record(int version, int... suites) throws IOException {
    int body = 2 + 32 + 1 + 2 + 2 * suites.length + 2;
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    DataOutputStream out = new DataOutputStream(bytes);
    out.writeByte(22);
    out.writeShort(0x0301);
    out.writeShort(body + 4);
    out.writeInt(1 << 24 | body);
    out.writeShort(version);
    out.write(new byte[32]);
    out.writeByte(0);
    out.writeShort(2 * suites.length);
    for (int suite : suites) {
      out.writeShort(suite);
    }
    out.writeByte(1);
    out.writeByte(0);
    return bytes.toByteArray();
  }
}
