// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;

/** A server of the application's own, at a port of this machine. */
final class RealService implements AutoCloseable {

  private final HttpServer server;
  private final AtomicInteger calls = new AtomicInteger();
  private volatile CountDownLatch gate = new CountDownLatch(0);
  private volatile int status = 200;
  private volatile byte[] body = {};
  private volatile Consumer<Headers> headers = none -> {};

  RealService() throws IOException {
    this("");
  }

  RealService(String says) throws IOException {
    answers(200, says);
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext("/", this::handle);
    server.start();
  }

  int port() {
    return server.getAddress().getPort();
  }

  String url() {
    return "http://localhost:" + port() + "/v1";
  }

  String address() {
    return "http://127.0.0.1:" + port();
  }

  void answers(int newStatus, String text) {
    answers(newStatus, text.getBytes(StandardCharsets.UTF_8), none -> {});
  }

  void answers(int newStatus, byte[] bytes, Consumer<Headers> fields) {
    status = newStatus;
    body = bytes;
    headers = fields;
  }

  void answersNothing() {
    gate = new CountDownLatch(1);
  }

  void goesOn() {
    gate.countDown();
  }

  int calls() {
    return calls.get();
  }

  private void handle(HttpExchange exchange) throws IOException {
    calls.incrementAndGet();
    try {
      gate.await();
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
    exchange.getRequestBody().readAllBytes();
    headers.accept(exchange.getResponseHeaders());
    exchange.sendResponseHeaders(status, body.length == 0 ? -1 : body.length);
    if (body.length > 0) {
      exchange.getResponseBody().write(body);
    }
    exchange.close();
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
