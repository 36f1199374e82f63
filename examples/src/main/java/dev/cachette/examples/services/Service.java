// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;

/** A service of the harbour: a server on the loopback address, with its own port. */
abstract class Service implements AutoCloseable {

  private final String origin;
  private final Duration time;
  private final HttpServer server;
  private final ExecutorService threads = Executors.newCachedThreadPool(Service::thread);
  private final AtomicInteger calls = new AtomicInteger();

  /**
   * Starts a service.
   *
   * @param origin its origin in production: {@code https://tides.example}
   * @param time how long it takes to answer
   */
  Service(String origin, Duration time) {
    this.origin = origin;
    this.time = time;
    try {
      server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    } catch (IOException noPort) {
      throw new UncheckedIOException(noPort);
    }
    server.createContext("/", this::handle);
    server.setExecutor(threads);
    server.start();
  }

  /** An answer: its status, type and text. */
  record Answer(int status, String type, String text, Map<String, String> headers) {

    static Answer json(int status, String text) {
      return new Answer(status, "application/json", text, Map.of());
    }
  }

  /** Returns its origin in production. */
  abstract Answer answer(HttpExchange call, String body) throws IOException;

  final String origin() {
    return origin;
  }

  final String address() {
    return "http://127.0.0.1:" + server.getAddress().getPort();
  }

  final int calls() {
    return calls.get();
  }

  private void handle(HttpExchange call) throws IOException {
    try (call) {
      calls.incrementAndGet();
      String body = new String(call.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
      long end = System.nanoTime() + time.toNanos();
      while (System.nanoTime() < end) {
        LockSupport.parkNanos(end - System.nanoTime());
      }
      Answer answer = answer(call, body);
      byte[] bytes = answer.text().getBytes(StandardCharsets.UTF_8);
      if (!answer.type().isEmpty()) {
        call.getResponseHeaders().set("content-type", answer.type());
      }
      call.getResponseHeaders().set("x-request-id", UUID.randomUUID().toString());
      answer.headers().forEach(call.getResponseHeaders()::set);
      call.sendResponseHeaders(answer.status(), bytes.length == 0 ? -1 : bytes.length);
      call.getResponseBody().write(bytes);
    }
  }

  static Optional<String> header(HttpExchange call, String name) {
    return Optional.ofNullable(call.getRequestHeaders().getFirst(name));
  }

  /** Parses the parameters of a query, or the fields of a form. */
  static Map<String, String> fields(String text) {
    Map<String, String> fields = new TreeMap<>();
    for (String pair : text == null ? new String[0] : text.split("&")) {
      int equals = pair.indexOf('=');
      if (equals > 0) {
        fields.put(
            URLDecoder.decode(pair.substring(0, equals), StandardCharsets.UTF_8),
            URLDecoder.decode(pair.substring(equals + 1), StandardCharsets.UTF_8));
      }
    }
    return fields;
  }

  @Override
  public final void close() {
    server.stop(0);
    threads.shutdownNow();
  }

  private static Thread thread(Runnable task) {
    Thread thread = new Thread(task, "harbour-service");
    thread.setDaemon(true);
    return thread;
  }
}
