// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.ActiveCassette;
import dev.cachette.Cachette;
import dev.cachette.ForwardProxy;
import dev.cachette.RealServices;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.Authenticator;
import java.net.PasswordAuthentication;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import java.util.List;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * Recording reaches the real service by the caller's version of HTTP, through the JVM's proxy, with
 * the JVM's trust. The service, and the proxy, is a second Cachette, which intercepts nothing.
 */
class RecordedProtocolsTest {

  @TempDir Path folder;
  private final ProxySelector proxies = ProxySelector.getDefault();
  private SSLContext trust;
  private Cachette service;

  @BeforeEach
  void open() throws Exception {
    trust = SSLContext.getDefault();
    service =
        Cachette.open(
            Settings.defaults()
                .withoutInterception()
                .unexpectedCalls(UnexpectedCalls.WARN)
                .unusedStubs(UnusedStubs.IGNORE));
    service.stub("GET http://tides.example/v1").answer(text("high at 04:10"));
    service.stub("GET https://tides.example/v1").answer(text("high at 04:10"));
  }

  @AfterEach
  void close() {
    ProxySelector.setDefault(proxies);
    Authenticator.setDefault(null);
    SSLContext.setDefault(trust);
    service.close();
  }

  @ParameterizedTest
  @EnumSource(Protocol.class)
  void eachProtocolIsRecordedThroughTheProxyAndReplayed(Protocol protocol) throws Exception {
    if (protocol == Protocol.HTTP_2_CLEAR) {
      // No proxy is asked in HTTP/2 here; without one, the service is where its name says.
      return;
    }
    ForwardProxy proxy = service.proxy();
    SSLContext.setDefault(trusting(proxy.authorityPem()));
    ProxySelector.setDefault(ProxySelector.of(proxy.address()));

    Exchange recorded = recordAndReplay(protocol, Settings.defaults());

    String version = protocol == Protocol.HTTP_2 ? "HTTP/2" : "HTTP/1.1";
    assertEquals(version, recorded.protocol());
    assertEquals(version, service.calls().only().protocol());
  }

  @ParameterizedTest
  @CsvSource({"HTTP, http", "HTTP, https", "SOCKS, http", "SOCKS, https"})
  void proxiesThatWantAPasswordGetTheOneOfTheJvm(Proxy.Type type, String scheme) throws Exception {
    SSLContext.setDefault(trusting(service.proxy().authorityPem()));
    try (GuardedProxy proxy = new GuardedProxy(service.proxy().address())) {
      ProxySelector.setDefault(always(new Proxy(type, proxy.address())));
      Authenticator.setDefault(asking(GuardedProxy.USER, GuardedProxy.PASSWORD));

      recordAndReplay(scheme.equals("http") ? Protocol.HTTP : Protocol.HTTPS, Settings.defaults());

      assertEquals(1, proxy.letThrough());
    }
  }

  @ParameterizedTest
  @EnumSource(names = {"HTTP", "SOCKS"})
  void aProxyThatRefusesATunnelIsAResetAndNoAnswer(Proxy.Type type) throws Exception {
    try (GuardedProxy proxy = new GuardedProxy(service.proxy().address())) {
      ProxySelector.setDefault(always(new Proxy(type, proxy.address())));
      Authenticator.setDefault(asking(GuardedProxy.USER, "high water"));
      try (Cachette net = Cachette.open(Settings.defaults().cassetteFolder(folder));
          HarbourClient client = Row.named("OkHttp 5").create(Protocol.HTTPS)) {
        net.cassette("tides", CassetteSettings.defaults().recordingInCi());

        assertThrows(IOException.class, () -> client.get("https://tides.example/v1"));
        assertEquals(1, net.calls().stream().count());
        assertEquals(0, proxy.letThrough());
      }
    }
  }

  @Test
  void http2InClearTextIsRecordedWhereTheCallerKnowsOfIt() throws Exception {
    Settings settings =
        Settings.defaults()
            .realServices(
                RealServices.defaults()
                    .at("http://tides.example", service.baseUrl(), "tides.example"));

    recordAndReplay(Protocol.HTTP_2_CLEAR, settings);

    assertEquals("HTTP/2", service.calls().only().protocol());
  }

  @Test
  void aServiceThatIsNotTrustedIsRecordedAsThat() throws Exception {
    ProxySelector.setDefault(ProxySelector.of(service.proxy().address()));
    try (Cachette net = Cachette.open(Settings.defaults().cassetteFolder(folder));
        HarbourClient client = Row.named("OkHttp 5").create(Protocol.HTTPS)) {
      net.cassette("tides", CassetteSettings.defaults().recordingInCi());
      assertThrows(IOException.class, () -> client.get("https://tides.example/v1"));
    }
    try (Cachette net = Cachette.open(Settings.defaults().cassetteFolder(folder));
        HarbourClient client = Row.named("OkHttp 5").create(Protocol.HTTPS)) {
      net.cassette("tides", CassetteSettings.defaults().mode(RecordingMode.REPLAY));
      assertThrows(SSLHandshakeException.class, () -> client.get("https://tides.example/v1"));
    }
  }

  private Exchange recordAndReplay(Protocol protocol, Settings settings) throws Exception {
    String url = protocol.scheme + "://tides.example/v1";
    try (Cachette net = Cachette.open(settings.cassetteFolder(folder));
        HarbourClient client = Row.named("OkHttp 5").create(protocol)) {
      net.cassette("tides", CassetteSettings.defaults().recordingInCi());
      assertEquals("high at 04:10", client.get(url).body());
    }
    try (Cachette net = Cachette.open(settings.cassetteFolder(folder));
        HarbourClient client = Row.named("OkHttp 5").create(protocol)) {
      ActiveCassette cassette =
          net.cassette("tides", CassetteSettings.defaults().mode(RecordingMode.REPLAY));
      assertEquals("high at 04:10", client.get(url).body());
      return cassette.recorded().exchanges().get(0);
    }
  }

  private static ProxySelector always(Proxy proxy) {
    return new ProxySelector() {
      @Override
      public List<Proxy> select(URI uri) {
        return List.of(proxy);
      }

      @Override
      public void connectFailed(URI uri, SocketAddress address, IOException failure) {}
    };
  }

  private static Authenticator asking(String user, String password) {
    return new Authenticator() {
      @Override
      protected PasswordAuthentication getPasswordAuthentication() {
        return new PasswordAuthentication(user, password.toCharArray());
      }
    };
  }

  private static SSLContext trusting(String pem) throws Exception {
    KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
    store.load(null, null);
    store.setCertificateEntry(
        "authority",
        CertificateFactory.getInstance("X.509")
            .generateCertificate(
                new ByteArrayInputStream(pem.getBytes(StandardCharsets.US_ASCII))));
    TrustManagerFactory managers =
        TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
    managers.init(store);
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(null, managers.getTrustManagers(), null);
    return context;
  }
}
