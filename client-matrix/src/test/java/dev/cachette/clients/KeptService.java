// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/** A real service at a port of this machine, which keeps its connections. */
final class KeptService implements AutoCloseable {

  private final HttpServer server;
  private final ExecutorService threads = Executors.newCachedThreadPool();

  KeptService(String says) throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setExecutor(threads);
    server.createContext(
        "/",
        exchange -> {
          byte[] bytes = says.getBytes(StandardCharsets.UTF_8);
          exchange.getRequestBody().readAllBytes();
          exchange.sendResponseHeaders(200, bytes.length);
          exchange.getResponseBody().write(bytes);
          exchange.close();
        });
    server.start();
  }

  String url() {
    return "http://localhost:" + server.getAddress().getPort() + "/v1";
  }

  @Override
  public void close() {
    server.stop(0);
    threads.shutdown();
  }
}
