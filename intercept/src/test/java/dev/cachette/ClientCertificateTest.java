// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.internal.tls.ClientKey;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Mutual TLS: clients are asked for a certificate if the settings say so. */
class ClientCertificateTest {

  private static final Settings ASKING = Settings.defaults().requestClientCertificates(true);
  private static final String URL = "https://tides.example/v1";

  @ParameterizedTest
  @EnumSource(HttpClient.Version.class)
  void aCallHasTheCertificateOfItsClient(HttpClient.Version version) throws Exception {
    try (Cachette net = Cachette.open(ASKING)) {
      net.stub("GET " + URL).answer(text("04:10"));
      assertEquals("04:10", get(ClientKey.context("harbour-office"), version));
      X509Certificate certificate = net.calls().only().clientCertificate().orElseThrow();
      assertEquals("CN=harbour-office", certificate.getSubjectX500Principal().getName());
    }
  }

  @ParameterizedTest
  @EnumSource(HttpClient.Version.class)
  void aClientWithoutOneIsAnswered(HttpClient.Version version) throws Exception {
    try (Cachette net = Cachette.open(ASKING)) {
      net.stub("GET " + URL).answer(text("04:10"));
      assertEquals("04:10", get(SSLContext.getDefault(), version));
      assertTrue(net.calls().only().clientCertificate().isEmpty());
    }
  }

  @ParameterizedTest
  @EnumSource(HttpClient.Version.class)
  void noClientIsAskedByDefault(HttpClient.Version version) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + URL).answer(text("04:10"));
      assertEquals("04:10", get(ClientKey.context("harbour-office"), version));
      assertTrue(net.calls().only().clientCertificate().isEmpty());
    }
  }

  private static String get(SSLContext context, HttpClient.Version version) throws Exception {
    HttpClient client = HttpClient.newBuilder().sslContext(context).version(version).build();
    return Calling.send(client, HttpRequest.newBuilder(URI.create(URL)).build()).body();
  }
}
