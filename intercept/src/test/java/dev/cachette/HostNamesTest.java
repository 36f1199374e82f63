// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import javax.net.ssl.HttpsURLConnection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLParameters;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.SSLSocketFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Host names in their several forms, and what a client of TLS may ask for. */
class HostNamesTest {

  @ParameterizedTest
  @CsvSource({
    "https://tides.example/v1, https://TIDES.example/v1",
    "https://tides.example/v1, https://tides.example./v1",
    "https://tides.example./v1, https://tides.example/v1",
    "http://tides.example/v1, http://tides.example./v1",
    "https://büro.example/v1, https://xn--bro-hoa.example/v1",
    "https://xn--bro-hoa.example/v1, https://xn--bro-hoa.example/v1",
    "http://büro.example/v1, http://büro.example/v1",
    "https://BÜRO.example/v1, https://xn--bro-hoa.example/v1",
  })
  void aHostIsTheSameInAllItsForms(String stub, String called) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + stub).answer(text("04:10"));
      assertEquals("04:10", get((HttpURLConnection) new URL(called).openConnection()));
      net.calls("GET " + stub).assertCount(1);
    }
  }

  @Test
  void aClientThatKnowsRsaAloneIsAnswered() throws Exception {
    SSLContext context = SSLContext.getDefault();
    SSLParameters rsa = context.getDefaultSSLParameters();
    rsa.setProtocols(new String[] {"TLSv1.2"});
    rsa.setCipherSuites(new String[] {"TLS_ECDHE_RSA_WITH_AES_128_GCM_SHA256"});
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(text("04:10"));
      HttpsURLConnection client =
          (HttpsURLConnection) new URL("https://tides.example/v1").openConnection();
      client.setSSLSocketFactory(new With(context.getSocketFactory(), rsa));

      assertEquals("04:10", get(client));
    }
  }

  private static String get(HttpURLConnection connection) throws Exception {
    try (InputStream in = connection.getInputStream()) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  /** Makes sockets with parameters. */
  private static final class With extends SSLSocketFactory {

    private final SSLSocketFactory factory;
    private final SSLParameters parameters;

    With(SSLSocketFactory factory, SSLParameters parameters) {
      this.factory = factory;
      this.parameters = parameters;
    }

    private java.net.Socket with(java.net.Socket socket) {
      ((SSLSocket) socket).setSSLParameters(parameters);
      return socket;
    }

    @Override
    public String[] getDefaultCipherSuites() {
      return parameters.getCipherSuites();
    }

    @Override
    public String[] getSupportedCipherSuites() {
      return parameters.getCipherSuites();
    }

    @Override
    public java.net.Socket createSocket(
        java.net.Socket socket, String host, int port, boolean autoClose)
        throws java.io.IOException {
      return with(factory.createSocket(socket, host, port, autoClose));
    }

    @Override
    public java.net.Socket createSocket(String host, int port) throws java.io.IOException {
      return with(factory.createSocket(host, port));
    }

    @Override
    public java.net.Socket createSocket(String host, int port, java.net.InetAddress at, int from)
        throws java.io.IOException {
      return with(factory.createSocket(host, port, at, from));
    }

    @Override
    public java.net.Socket createSocket(java.net.InetAddress host, int port)
        throws java.io.IOException {
      return with(factory.createSocket(host, port));
    }

    @Override
    public java.net.Socket createSocket(
        java.net.InetAddress host, int port, java.net.InetAddress at, int from)
        throws java.io.IOException {
      return with(factory.createSocket(host, port, at, from));
    }
  }
}
