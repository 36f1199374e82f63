// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.realService;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsExchange;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.util.List;
import java.util.stream.Collectors;
import javax.net.ssl.ExtendedSSLSession;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SNIServerName;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.opentest4j.AssertionFailedError;

/** Real services at other addresses, by HTTPS, with private certificate authorities. */
@Timeout(60)
class RealServicesTest {

  private static final String BERTHS = "https://berths.example";
  private static final char[] PASSWORD = "marrow bay".toCharArray();

  @TempDir static Path folder;

  private HttpsServer service;

  /** Creates one key store and certificate file per host name. */
  @BeforeAll
  static void createCertificates() throws Exception {
    for (String host : List.of("localhost", "berths.example")) {
      String store = folder.resolve(host + ".p12").toString();
      String password = new String(PASSWORD);
      keytool(
          "-genkeypair",
          "-keyalg",
          "EC",
          "-dname",
          "CN=" + host,
          "-ext",
          "san=dns:" + host,
          "-validity",
          "3650",
          "-storetype",
          "PKCS12",
          "-keystore",
          store,
          "-storepass",
          password);
      keytool(
          "-exportcert",
          "-rfc",
          "-file",
          pem(host).toString(),
          "-keystore",
          store,
          "-storepass",
          password);
    }
  }

  private static void keytool(String... arguments) throws Exception {
    List<String> command =
        new java.util.ArrayList<>(
            List.of(Path.of(System.getProperty("java.home"), "bin", "keytool").toString()));
    command.addAll(List.of(arguments));
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertEquals(0, process.waitFor(), said);
  }

  private static Path pem(String host) {
    return folder.resolve(host + ".pem");
  }

  /** Starts a service that says under which name it was called. */
  private String serve(String certificateFor) throws Exception {
    KeyStore store = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(folder.resolve(certificateFor + ".p12"))) {
      store.load(in, PASSWORD);
    }
    KeyManagerFactory keys = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    keys.init(store, PASSWORD);
    SSLContext tls = SSLContext.getInstance("TLS");
    tls.init(keys.getKeyManagers(), null, null);
    service = HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    service.setHttpsConfigurator(new HttpsConfigurator(tls));
    service.createContext("/", exchange -> answer((HttpsExchange) exchange));
    service.start();
    return "https://localhost:" + service.getAddress().getPort();
  }

  private static void answer(HttpsExchange exchange) throws IOException {
    String names =
        ((ExtendedSSLSession) exchange.getSSLSession())
            .getRequestedServerNames().stream()
                .map(SNIServerName::getEncoded)
                .map(name -> new String(name, StandardCharsets.US_ASCII))
                .collect(Collectors.joining(","));
    byte[] body =
        ("SNI " + names + ", Host " + exchange.getRequestHeaders().getFirst("host"))
            .getBytes(StandardCharsets.UTF_8);
    exchange.sendResponseHeaders(200, body.length);
    exchange.getResponseBody().write(body);
    exchange.close();
  }

  @AfterEach
  void stop() {
    if (service != null) {
      service.stop(0);
    }
  }

  private static Cachette net(RealServices services) {
    Cachette net = Cachette.open(Settings.defaults().realServices(services));
    net.stub("GET " + BERTHS + "/{+rest}").answer(realService());
    return net;
  }

  @Test
  void theAddressThatIsCalledGivesTheNamesInTlsAndHttp() throws Exception {
    String address = serve("localhost");
    RealServices services = RealServices.defaults().at(BERTHS, address).trusting(pem("localhost"));
    try (Cachette net = net(services)) {
      assertEquals(
          "SNI localhost, Host localhost:" + service.getAddress().getPort(),
          Calling.get(BERTHS + "/v1").body());
      net.calls("GET " + BERTHS + "/v1").assertCount(1);
    }
  }

  @Test
  void anotherNameIsUsedIfItIsGiven() throws Exception {
    String address = serve("berths.example");
    RealServices services =
        RealServices.defaults()
            .at(BERTHS, address, "berths.example")
            .trusting(pem("berths.example"));
    try (Cachette net = net(services)) {
      assertEquals("SNI berths.example, Host berths.example", Calling.get(BERTHS + "/v1").body());
      assertEquals(1, net.calls().count());
    }
  }

  @Test
  void aCertificateForAnotherNameIsRefused() throws Exception {
    String address = serve("berths.example");
    Cachette net = net(RealServices.defaults().at(BERTHS, address).trusting(pem("berths.example")));
    assertThrows(IOException.class, () -> Calling.get(BERTHS + "/v1"));
    String message = assertThrows(AssertionFailedError.class, net::close).getMessage();
    assertTrue(message.contains("No subject alternative DNS name matching localhost"), message);
  }

  @Test
  void anUnknownAuthorityIsRefusedWithTheFix() throws Exception {
    String address = serve("localhost");
    Cachette net = net(RealServices.defaults().at(BERTHS, address).trusting(pem("berths.example")));
    assertThrows(IOException.class, () -> Calling.get(BERTHS + "/v1"));
    String message = assertThrows(AssertionFailedError.class, net::close).getMessage();
    assertTrue(message.contains("unable to find valid certification path"), message);
    assertTrue(message.contains("RealServices.trusting(file)"), message);
  }

  @ParameterizedTest
  @ValueSource(strings = {"https://berths.example", "berths.example:443", "a b", "", "berths/x"})
  void aMalformedHostNameIsRefused(String name) {
    String message =
        assertThrows(
                IllegalArgumentException.class,
                () -> RealServices.defaults().at(BERTHS, "https://localhost:1", name))
            .getMessage();
    assertTrue(message.contains("is not a host name"), message);
  }

  @Test
  void aFileWithoutCertificatesIsRefused() throws IOException {
    Path empty = Files.writeString(folder.resolve("empty.pem"), "berths\n");
    for (Path file : List.of(empty, folder.resolve("missing.pem"), folder)) {
      String message =
          assertThrows(IllegalArgumentException.class, () -> RealServices.defaults().trusting(file))
              .getMessage();
      assertTrue(message.contains(file.toString()), message);
    }
  }
}
