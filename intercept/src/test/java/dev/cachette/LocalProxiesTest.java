// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;

import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A proxy on this machine carries no call out, however a client has got to know it. */
class LocalProxiesTest {

  private static final List<String> PROPERTIES =
      List.of("http.proxyHost", "http.proxyPort", "https.proxyHost", "https.proxyPort");

  private RealService proxy;

  @BeforeEach
  void open() throws Exception {
    proxy = new RealService("of the proxy");
  }

  @AfterEach
  void close() {
    PROPERTIES.forEach(System::clearProperty);
    proxy.close();
  }

  @ParameterizedTest
  @ValueSource(strings = {"http", "https"})
  void aSelectorThatWasKeptFromBefore(String scheme) throws Exception {
    useProxy();
    HttpClient client = HttpClient.newBuilder().proxy(ProxySelector.getDefault()).build();
    assertStubbed(client, scheme);
  }

  @ParameterizedTest
  @ValueSource(strings = {"http", "https"})
  void aClientThatReadsThePropertiesItself(String scheme) throws Exception {
    useProxy();
    InetSocketAddress address =
        new InetSocketAddress(
            System.getProperty("https.proxyHost"), Integer.getInteger("https.proxyPort"));
    HttpClient client = HttpClient.newBuilder().proxy(ProxySelector.of(address)).build();
    assertStubbed(client, scheme);
  }

  @Test
  void anotherServerOfThisMachineIsLeftAlone() throws Exception {
    useProxy();
    try (RealService other = new RealService("other");
        Cachette net = Cachette.open()) {
      assertEquals("other", Calling.plain(other.address() + "/"));
    }
  }

  private void useProxy() {
    for (String scheme : List.of("http", "https")) {
      System.setProperty(scheme + ".proxyHost", "127.0.0.1");
      System.setProperty(scheme + ".proxyPort", Integer.toString(proxy.port()));
    }
  }

  private void assertStubbed(HttpClient client, String scheme) throws Exception {
    String url = scheme + "://tides.example/v1";
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + url).answer(text("04:10"));
      assertEquals(
          "04:10", Calling.send(client, HttpRequest.newBuilder(URI.create(url)).build()).body());
      net.calls("GET " + url).assertCount(1);
    }
    assertEquals(0, proxy.calls());
  }
}
