// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.ServerSocket;
import java.net.URI;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A server that passes calls on must not call itself, by any of its names. */
@Timeout(60)
class LoopsTest {

  private static final String TIDES = "http://tides.example";

  private static final Settings SERVING =
      Settings.defaults().withoutInterception().unexpectedCalls(UnexpectedCalls.WARN);

  private static Cachette passingOn(Settings settings) {
    Cachette net = Cachette.open(settings);
    net.letThrough("* /{+rest}");
    return net;
  }

  /** Returns names and addresses of this machine. */
  private static Set<String> names() throws IOException {
    Set<String> names =
        new LinkedHashSet<>(List.of("localhost", "127.0.0.1", "LOCALHOST", "127.0.0.2", "[::1]"));
    names.add(InetAddress.getLocalHost().getHostName());
    for (NetworkInterface each : Collections.list(NetworkInterface.getNetworkInterfaces())) {
      for (InetAddress address : Collections.list(each.getInetAddresses())) {
        String text = address.getHostAddress().replaceFirst("%.*", "");
        names.add(text.indexOf(':') < 0 ? text : "[" + text + "]");
      }
    }
    return names;
  }

  @Test
  void aCallToItselfIsRefusedByAnyName() throws Exception {
    try (Cachette net = passingOn(SERVING.listenAddress(new InetSocketAddress("0.0.0.0", 0)))) {
      int port = URI.create(net.baseUrl()).getPort();
      for (String name : names()) {
        String response =
            Calling.raw(
                "127.0.0.1",
                port,
                "GET http://%s:%d/v1 HTTP/1.1\r\nHost: a\r\nConnection: close\r\n\r\n"
                    .formatted(name, port));

        assertTrue(response.startsWith("HTTP/1.1 501 "), () -> name + ": " + response);
        assertTrue(response.contains("(it would come back)"), response);
      }
      assertEquals(names().size(), net.calls().count());
    }
  }

  /** By its address alone, neither can know. */
  @Test
  void aCallThatComesBackThroughAnotherIsRefused() throws Exception {
    int[] ports = freePorts();
    try (Cachette one = passingOn(at(ports[0], ports[1]));
        Cachette other = passingOn(at(ports[1], ports[0]))) {
      other.baseUrl();

      String response = callThrough(one);

      assertTrue(response.startsWith("HTTP/1.1 501 "), response);
      assertTrue(response.contains("(it would come back)"), response);
      assertEquals(2, one.calls().count());
      assertEquals(1, other.calls().count());
    }
  }

  private static int[] freePorts() throws IOException {
    try (ServerSocket one = new ServerSocket(0);
        ServerSocket other = new ServerSocket(0)) {
      return new int[] {one.getLocalPort(), other.getLocalPort()};
    }
  }

  private static Settings at(int port, int other) {
    return at(port)
        .realServices(RealServices.defaults().at(TIDES, address(other), "tides.example"));
  }

  private static Settings at(int port) {
    return SERVING.listenAddress(new InetSocketAddress("127.0.0.1", port));
  }

  private static String address(int port) {
    return "http://127.0.0.1:" + port;
  }

  private static String callThrough(Cachette net) throws IOException {
    int port = URI.create(net.baseUrl()).getPort();
    return Calling.raw(
        "127.0.0.1", port, "GET " + TIDES + "/v1 HTTP/1.1\r\nHost: a\r\nConnection: close\r\n\r\n");
  }
}
