// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;

/** A provider: answers each request alike, and notes what it was asked. */
final class BerthService implements AutoCloseable {

  private final HttpServer server;
  private final List<String> requests = new CopyOnWriteArrayList<>();
  private final Map<String, String> headers = new LinkedHashMap<>();
  private volatile int status = 200;
  private volatile String body = "";

  BerthService() {
    try {
      server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    } catch (IOException taken) {
      throw new UncheckedIOException(taken);
    }
    server.createContext("/", this::answer);
    server.start();
  }

  /** Answers with this from now on. */
  BerthService answers(int newStatus, String newBody, String... nameAndValue) {
    status = newStatus;
    body = newBody;
    headers.clear();
    for (int at = 0; at < nameAndValue.length; at += 2) {
      headers.put(nameAndValue[at], nameAndValue[at + 1]);
    }
    return this;
  }

  String url() {
    return "http://localhost:" + server.getAddress().getPort();
  }

  /** Returns method, target, authorization and body of each request. */
  List<String> requests() {
    return requests;
  }

  private void answer(HttpExchange exchange) throws IOException {
    try (exchange) {
      String sent = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
      requests.add(
          String.join(
              " ",
              exchange.getRequestMethod(),
              exchange.getRequestURI().toString(),
              String.valueOf(exchange.getRequestHeaders().getFirst("authorization")),
              sent));
      byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
      headers.forEach(exchange.getResponseHeaders()::add);
      exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
      if (bytes.length > 0) {
        exchange.getResponseBody().write(bytes);
      }
    }
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
