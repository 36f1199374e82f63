// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Gate;
import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.nio.charset.StandardCharsets;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Ways to the stubs for code that is not intercepted. */
class AddressesTest {

  private static final Settings ADDRESSES_ONLY = Settings.defaults().withoutInterception();

  @Test
  void aBaseUrlStandsForItselfAndForTheHostHeader() throws Exception {
    try (Cachette net = Cachette.open(ADDRESSES_ONLY)) {
      net.stub("GET /v1/tides").answer(text("any"));
      net.stub("GET http://tides.example/v1/tides").answer(text("named"));
      URI address = URI.create(net.baseUrl());

      assertEquals("any", Calling.get(net.baseUrl() + "/v1/tides").body());
      String named =
          Calling.raw(
              address.getHost(),
              address.getPort(),
              "GET /v1/tides HTTP/1.1\r\nHost: tides.example\r\nConnection: close\r\n\r\n");
      assertTrue(named.endsWith("named"), named);
      assertEquals(net.baseUrl(), net.baseUrl());
    }
  }

  @Test
  void aBaseUrlStandsForAnOrigin() throws Exception {
    try (Cachette net = Cachette.open(ADDRESSES_ONLY)) {
      net.stub("GET https://tides.example/v1/tides").answer(json("{}"));
      String tides = net.baseUrlFor("https://tides.example");

      assertEquals("{}", Calling.get(tides + "/v1/tides").body());

      assertEquals("https://tides.example/v1/tides", net.calls().only().uri().toString());
      assertEquals(tides, net.baseUrlFor("https://tides.example:443/"));
      assertNotEquals(tides, net.baseUrlFor("http://tides.example"));
      for (String wrong : new String[] {"tides.example", "https://tides.example/v1", "", null}) {
        assertThrows(IllegalArgumentException.class, () -> net.baseUrlFor(wrong));
      }
    }
  }

  @Test
  void nothingIsIntercepted() {
    try (Cachette net = Cachette.open(ADDRESSES_ONLY)) {
      assertThrows(UnknownHostException.class, () -> InetAddress.getByName("tides.example"));
    }
  }

  @Test
  void anAddressCanBeASystemPropertyWhileOpen() throws Exception {
    System.clearProperty("tides.url");
    System.setProperty("berths.url", "as it was");
    Settings settings =
        ADDRESSES_ONLY
            .baseUrlInProperty("tides.url", "https://tides.example")
            .baseUrlInProperty("berths.url", "https://berths.example");
    try (Cachette net = Cachette.open(settings)) {
      net.stub("GET https://tides.example/v1").answer(text("high"));

      assertEquals("high", Calling.get(System.getProperty("tides.url") + "/v1").body());
      assertEquals(net.baseUrlFor("https://berths.example"), System.getProperty("berths.url"));
    }
    assertNull(System.getProperty("tides.url"));
    assertEquals("as it was", System.getProperty("berths.url"));
    System.clearProperty("berths.url");
  }

  @Test
  void aProxySpeaksForEveryHost() throws Exception {
    try (Cachette net = Cachette.open(ADDRESSES_ONLY)) {
      net.stub("GET https://tides.example/v1").answer(text("high"));
      net.stub("GET http://berths.example:81/v1").answer(text("B-12"));
      net.stub("POST https://berths.example:8443/v1").answer(text("booked"));
      ForwardProxy proxy = net.proxy();
      HttpClient client =
          HttpClient.newBuilder()
              .proxy(ProxySelector.of(proxy.address()))
              .sslContext(trusting(proxy.authorityPem()))
              .build();

      assertEquals("high", Calling.send(client, get("https://tides.example/v1")).body());
      assertEquals("B-12", Calling.send(client, get("http://berths.example:81/v1")).body());
      HttpRequest post =
          HttpRequest.newBuilder(URI.create("https://berths.example:8443/v1"))
              .POST(BodyPublishers.ofString("{}"))
              .build();
      assertEquals("booked", Calling.send(client, post).body());
      net.calls().assertCount(3);
      assertEquals("http://127.0.0.1:" + proxy.port(), proxy.uri().toString());
    }
  }

  @Test
  void aProxyThatTheCodeIsSetToIsSpokenFor() throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(text("high"));
      net.stub("GET http://tides.example/v1").answer(text("low"));
      HttpClient client =
          HttpClient.newBuilder()
              .proxy(ProxySelector.of(InetSocketAddress.createUnresolved("proxy.example", 3128)))
              .build();

      assertEquals("high", Calling.send(client, get("https://tides.example/v1")).body());
      assertEquals("low", Calling.send(client, get("http://tides.example/v1")).body());
    }
  }

  @Test
  void aConnectToNowhereIsRefused() throws Exception {
    Cachette net = Cachette.open();
    String answer = Calling.raw("proxy.example", 3128, "CONNECT tides HTTP/1.1\r\n\r\n");

    assertTrue(answer.startsWith("HTTP/1.1 400 "), answer);
    assertTrue(answer.contains("CONNECT needs a host and a port, not tides"), answer);
    assertThrows(AssertionError.class, net::close);
  }

  @Test
  @Timeout(300)
  void thirtyTwoParallelTestsDoNotSeeEachOthersCalls() throws Exception {
    int tests = 32;
    int calls = 1_000;
    ExecutorService threads = Executors.newFixedThreadPool(tests);
    Gate allAreOpen = new Gate();
    try {
      List<Callable<Integer>> all = new ArrayList<>();
      for (int test = 0; test < tests; test++) {
        all.add(test(test, calls, allAreOpen));
      }
      allAreOpen.open();
      for (Future<Integer> counted : threads.invokeAll(all)) {
        assertEquals(calls, counted.get());
      }
    } finally {
      threads.shutdown();
    }
  }

  private static Callable<Integer> test(int number, int calls, Gate allAreOpen) {
    return () -> {
      try (Cachette net = Cachette.open(ADDRESSES_ONLY)) {
        net.stub("GET https://tides.example/v1/{n}")
            .answer(text("test " + number).heldBy(allAreOpen));
        String base = net.baseUrlFor("https://tides.example");
        for (int call = 0; call < calls; call++) {
          try (InputStream in = URI.create(base + "/v1/" + call).toURL().openStream()) {
            assertEquals("test " + number, new String(in.readAllBytes(), StandardCharsets.UTF_8));
          }
        }
        List<String> numbers = net.calls().stream().map(call -> call.variable("n")).toList();
        assertEquals(IntStream.range(0, calls).mapToObj(Integer::toString).toList(), numbers);
        return numbers.size();
      }
    };
  }

  private static HttpRequest get(String url) {
    return HttpRequest.newBuilder(URI.create(url)).build();
  }

  static SSLContext trusting(String pem) throws Exception {
    KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
    store.load(null, null);
    store.setCertificateEntry(
        "cachette",
        CertificateFactory.getInstance("X.509")
            .generateCertificate(
                new ByteArrayInputStream(pem.getBytes(StandardCharsets.US_ASCII))));
    TrustManagerFactory factory = TrustManagerFactory.getInstance("PKIX");
    factory.init(store);
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(null, factory.getTrustManagers(), null);
    return context;
  }

  /** Whatever the caller calls it, it is the service that it serves as. */
  @Test
  void theNameOfTheListenerDoesNotChangeWhatItServesAs() throws Exception {
    Settings settings =
        Settings.defaults().withoutInterception().servingAs("http://192.0.2.7:9102");
    try (Cachette net = Cachette.open(settings)) {
      net.stub("GET http://192.0.2.7:9102/v1").answer(text("high"));
      int port = URI.create(net.baseUrl()).getPort();

      assertEquals("high", Calling.plain("http://localhost:" + port + "/v1"));
      assertEquals("high", Calling.plain("http://127.0.0.1:" + port + "/v1"));
    }
  }
}
