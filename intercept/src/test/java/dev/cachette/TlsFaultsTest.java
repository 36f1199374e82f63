// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Faults.expiredCertificate;
import static dev.cachette.answer.Faults.handshakeRefused;
import static dev.cachette.answer.Faults.notYetValidCertificate;
import static dev.cachette.answer.Faults.outdatedTls;
import static dev.cachette.answer.Faults.untrustedAuthority;
import static dev.cachette.answer.Faults.wrongHostCertificate;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.ResponseAnswer;
import java.security.cert.CertPathBuilderException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateNotYetValidException;
import javax.net.ssl.SSLHandshakeException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Handshakes that fail, in the words of the JDK. */
class TlsFaultsTest {

  private static final ResponseAnswer TIDES = json("{\"high\":\"04:10\"}");
  private static int tests;

  private final String host = "tls" + ++tests + ".tides.example";
  private final String http = "http://" + host + "/v1";
  private final String https = "https://" + host + "/v1";
  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open();
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void certificatesAreRefusedInTheJdksOwnWords() throws Exception {
    net.stub("GET " + https)
        .answer(
            expiredCertificate(),
            notYetValidCertificate(),
            wrongHostCertificate(),
            untrustedAuthority(),
            TIDES);

    assertEquals(CertificateExpiredException.class, rootOf(refused()).getClass());
    assertEquals(CertificateNotYetValidException.class, rootOf(refused()).getClass());
    Throwable wrongHost = rootOf(refused());
    assertEquals(CertificateException.class, wrongHost.getClass());
    assertTrue(wrongHost.getMessage().contains(host), wrongHost::getMessage);
    assertTrue(rootOf(refused()) instanceof CertPathBuilderException);
    assertEquals("{\"high\":\"04:10\"}", Calling.plain(https));
    net.calls().assertCount(1);
  }

  @Test
  void theHandshakeItselfFails() {
    net.stub("GET " + https).answer(handshakeRefused(), outdatedTls());

    assertTrue(refused().getMessage().contains("handshake_failure"));
    String old = refused().getMessage();
    assertTrue(old.contains("TLS10") || old.contains("TLSv1"), old);
  }

  @Test
  void tlsFaultOnPlainHttpIsAMisuse() {
    UnansweredStub stub = net.stub("GET " + http);

    var misuse = assertThrows(IllegalArgumentException.class, () -> stub.answer(outdatedTls()));

    assertTrue(misuse.getMessage().contains("\"outdated tls\""), misuse::getMessage);
    stub.answer(TIDES);
  }

  private SSLHandshakeException refused() {
    return assertThrows(SSLHandshakeException.class, () -> Calling.plain(https));
  }

  private static Throwable rootOf(Throwable thrown) {
    return thrown.getCause() == null ? thrown : rootOf(thrown.getCause());
  }
}
