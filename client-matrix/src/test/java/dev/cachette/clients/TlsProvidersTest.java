// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.expiredCertificate;
import static dev.cachette.Factories.text;
import static dev.cachette.Factories.wrongHostCertificate;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.Provider;
import java.util.stream.Stream;
import javax.net.ssl.HttpsURLConnection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.bouncycastle.jce.provider.BouncyCastleProvider;
import org.bouncycastle.jsse.provider.BouncyCastleJsseProvider;
import org.conscrypt.Conscrypt;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Providers of TLS whose trust managers are not the JDK's. */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class TlsProvidersTest {

  static Stream<Provider> providers() {
    return Stream.of(
        new BouncyCastleJsseProvider(new BouncyCastleProvider()),
        Conscrypt.newProviderBuilder().provideTrustManager(true).build());
  }

  @ParameterizedTest
  @MethodSource("providers")
  void itTrustsWhatCachetteIssues(Provider provider) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(text("04:10"));
      assertEquals("04:10", get(provider));
    }
  }

  @ParameterizedTest
  @MethodSource("providers")
  void itRefusesAnExpiredCertificate(Provider provider) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(expiredCertificate());
      assertThrows(IOException.class, () -> get(provider));
    }
  }

  @ParameterizedTest
  @MethodSource("providers")
  void itRefusesTheCertificateOfAnotherHost(Provider provider) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(wrongHostCertificate());
      assertThrows(IOException.class, () -> get(provider));
    }
  }

  private static String get(Provider provider) throws Exception {
    TrustManagerFactory trust = TrustManagerFactory.getInstance("PKIX", provider);
    trust.init((java.security.KeyStore) null);
    SSLContext context = SSLContext.getInstance("TLS", provider);
    context.init(null, trust.getTrustManagers(), null);
    HttpsURLConnection connection =
        (HttpsURLConnection) URI.create("https://tides.example/v1").toURL().openConnection();
    connection.setSSLSocketFactory(context.getSocketFactory());
    try (InputStream in = connection.getInputStream()) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }
}
