// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import dev.cachette.internal.tls.ForeignServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import javax.net.ssl.HttpsURLConnection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** Nothing but our own certificates gains trust, and a client may still refuse them. */
class TrustTest {

  @Test
  void aServerThatNobodyTrustsIsStillRefused() throws Exception {
    HttpsServer foreign =
        HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    foreign.setHttpsConfigurator(new HttpsConfigurator(ForeignServer.context()));
    foreign.start();
    String url = "https://localhost:" + foreign.getAddress().getPort() + "/v1";
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(text("ok"));
      Calling.get("https://tides.example/v1");

      assertThrows(SSLHandshakeException.class, () -> Calling.get(url));
    } finally {
      foreign.stop(0);
    }
  }

  /** As certificate pinning does after the handshake. */
  @Test
  void aClientThatRefusesUsWithoutAnAlertIsExplained() throws Exception {
    try (Cachette net = Cachette.open()) {
      try (SSLSocket client =
          (SSLSocket) SSLContext.getDefault().getSocketFactory().createSocket("pay.example", 443)) {
        client.startHandshake();
      }
      String message = "";
      for (long end = System.nanoTime() + 20_000_000_000L;
          !message.contains("opened and closed") && System.nanoTime() < end; ) {
        message =
            assertThrows(AssertionFailedError.class, () -> net.calls().assertCount(1)).getMessage();
      }
      assertEquals(
          """
          Expected exactly 1 call, but there was none.

          No calls were made.

          A connection to pay.example:443 was opened and closed without a request.
          Likely cause: the client refused the certificate, because it pins certificates or has
          its own trust manager. Fix: use a client without them in this test.\
          """,
          message);
    }
  }

  @Test
  void aClientThatRefusesUsIsExplained() throws Exception {
    SSLContext distrustful = SSLContext.getInstance("TLS");
    distrustful.init(null, new TrustManager[] {new Distrust()}, null);
    Cachette net = Cachette.open();
    net.stub("GET https://tides.example/v1").answer(text("ok"));

    HttpsURLConnection client =
        (HttpsURLConnection) URI.create("https://tides.example/v1").toURL().openConnection();
    client.setSSLSocketFactory(distrustful.getSocketFactory());

    assertThrows(SSLHandshakeException.class, client::getResponseCode);

    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(
        failure.getMessage().contains("The TLS handshake with tides.example:443 failed"),
        failure::getMessage);
    assertTrue(failure.getMessage().contains("If it pins"), failure::getMessage);
  }

  private static final class Distrust extends X509ExtendedTrustManager {

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket)
        throws CertificateException {
      throw new CertificateException("pinned to another");
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine)
        throws CertificateException {
      throw new CertificateException("pinned to another");
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type)
        throws CertificateException {
      throw new CertificateException("pinned to another");
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) {}

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) {}

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type) {}

    @Override
    public X509Certificate[] getAcceptedIssuers() {
      return new X509Certificate[0];
    }
  }
}
