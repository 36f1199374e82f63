// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/** The services that the harbour desk calls, on ports of this machine. */
final class HarbourServices implements AutoCloseable {

  private static final String JSON = "application/json";

  private final ExecutorService threads = Executors.newCachedThreadPool();
  private final List<String> calls = new CopyOnWriteArrayList<>();
  private final HttpServer tides = start(this::tides);
  private final HttpServer berths = start(this::berths);
  private final HttpServer customs = start(this::customs);

  private HttpServer start(com.sun.net.httpserver.HttpHandler handler) {
    try {
      HttpServer server =
          HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
      server.setExecutor(threads);
      server.createContext("/", handler);
      server.start();
      return server;
    } catch (IOException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  private void tides(HttpExchange call) throws IOException {
    answer(call, 200, JSON, "{\"high\":[\"04:10\",\"16:35\"],\"low\":[\"10:22\"]}");
  }

  private void berths(HttpExchange call) throws IOException {
    answer(call, 201, JSON, "{\"berth\":\"B-12\",\"quay\":{\"name\":\"North\",\"length\":40}}");
  }

  private void customs(HttpExchange call) throws IOException {
    answer(call, 200, "application/xml", "<receipt><number>C-7</number></receipt>");
  }

  private void answer(HttpExchange call, int status, String type, String text) throws IOException {
    call.getRequestBody().readAllBytes();
    calls.add(call.getRequestMethod() + " " + call.getRequestURI());
    byte[] body = text.getBytes(StandardCharsets.UTF_8);
    call.getResponseHeaders().set("content-type", type);
    call.sendResponseHeaders(status, body.length);
    call.getResponseBody().write(body);
    call.close();
  }

  /** Returns the calls that have reached them. */
  List<String> calls() {
    return calls;
  }

  String tidesUrl() {
    return url(tides);
  }

  String berthsUrl() {
    return url(berths);
  }

  String customsUrl() {
    return url(customs);
  }

  private static String url(HttpServer server) {
    return "http://localhost:" + server.getAddress().getPort();
  }

  @Override
  public void close() {
    tides.stop(0);
    berths.stop(0);
    customs.stop(0);
    threads.shutdownNow();
  }
}
