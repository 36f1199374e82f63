// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The application's own ports: untouched, unless a stub names them. */
class LocalCallsTest {

  private RealService real;

  @BeforeEach
  void start() throws Exception {
    real = new RealService("real");
  }

  @AfterEach
  void stop() {
    real.close();
  }

  @Test
  void areLeftAloneWhereNoStubNamesThem() throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET /v1").answer(text("stubbed"));

      assertEquals("real", Calling.get(real.url()).body());
      assertEquals("real", Calling.get("http://127.0.0.1:" + real.port() + "/v1").body());
      net.calls().assertNone();
    }
  }

  @Test
  void areInterceptedWhereAStubNamesThemAndOnlyInItsScope() throws Exception {
    HttpClient client = HttpClient.newHttpClient();
    HttpRequest request = HttpRequest.newBuilder(URI.create(real.url())).build();
    try (Cachette net = Cachette.open()) {
      try (Cachette.Scope test = net.scope()) {
        net.stub("GET " + real.url()).answer(text("stubbed"));
        assertEquals("stubbed", Calling.send(client, request).body());
        net.calls().assertCount(1);
      }
      assertEquals("real", Calling.send(client, request).body());
    }
  }

  @Test
  void needNobodyListening() throws Exception {
    int free;
    try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      free = socket.getLocalPort();
    }
    String url = "http://127.0.0.1:" + free + "/v1";
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + url).answer(text("stubbed"));

      assertEquals("stubbed", Calling.get(url).body());
    }
    assertThrows(ConnectException.class, () -> Calling.get(url));
  }

  @Test
  void mayBeHttpsToo() throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://localhost:4712/v1").answer(text("stubbed"));

      assertEquals("stubbed", Calling.get("https://localhost:4712/v1").body());
    }
  }

  @Test
  void connectionsToOnesOwnAddressAreLocalToo() throws Exception {
    InetSocketAddress any = new InetSocketAddress(InetAddress.getByName("0.0.0.0"), real.port());
    try (Cachette net = Cachette.open();
        java.net.Socket socket = new java.net.Socket()) {
      socket.connect(any);
      assertEquals(real.port(), socket.getPort());
      net.calls().assertNone();
    }
  }
}
