package dev.cachette;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;

/** A server of the application's own, at a port of this machine. */
final class RealService implements AutoCloseable {

  private final HttpServer server;

  RealService(String says) throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext(
        "/",
        exchange -> {
          byte[] bytes = says.getBytes(StandardCharsets.UTF_8);
          exchange.sendResponseHeaders(200, bytes.length);
          exchange.getResponseBody().write(bytes);
          exchange.close();
        });
    server.start();
  }

  int port() {
    return server.getAddress().getPort();
  }

  String url() {
    return "http://localhost:" + port() + "/v1";
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
