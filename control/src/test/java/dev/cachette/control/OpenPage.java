// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Timeout;
import org.openqa.selenium.Dimension;

/** A control port with two stubs, and a browser to look at it. */
@Timeout(120)
@Tag("browser")
abstract class OpenPage {

  static Browser browser;

  final HttpClient client = HttpClient.newHttpClient();
  Cachette net;
  ControlPort port;
  String control;
  String base;

  @BeforeAll
  static void start() {
    assumeTrue(Browser.isHere(), "Chromium and its driver are not installed");
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    if (browser != null) {
      browser.close();
    }
  }

  @BeforeEach
  void open() {
    net = Cachette.open(settings());
    net.stub("GET /v1/tides")
        .named("tides of today")
        .answer(json("{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"]}"));
    net.stub("POST /v1/bookings").named("book a berth").answer(status(201), status(503));
    base = net.baseUrl();
    openPort(null);
  }

  static Settings settings() {
    return Settings.defaults()
        .withoutInterception()
        .servingAs("https://berths.example")
        .unexpectedCalls(UnexpectedCalls.WARN)
        .unusedStubs(UnusedStubs.IGNORE);
  }

  final void openPort(String token) {
    openPort(token, (Supplier<JsonNode>) null);
  }

  /** Opens it, with the tables of a store of contracts if there is one. */
  final void openPort(String token, Supplier<JsonNode> contracts) {
    openPort(token, it -> contracts == null ? it : it.contracts(contracts));
  }

  /** Opens it with more that it shows. */
  final void openPort(String token, UnaryOperator<ControlPort> more) {
    InetSocketAddress free = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
    port =
        new ControlPort(
            new Controlled(net),
            new ControlledSessions(() -> Cachette.open(settings())),
            free,
            token);
    control = more.apply(port).open();
  }

  @AfterEach
  void close() {
    browser.run("sessionStorage.clear()");
    browser.driver().manage().window().setSize(new Dimension(1280, 800));
    port.close();
    net.close();
  }

  final HttpResponse<String> call(String method, String path, String body, String... headers)
      throws IOException, InterruptedException {
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path));
    if (headers.length > 0) {
      request.headers(headers);
    }
    return client.send(
        request.method(method, HttpRequest.BodyPublishers.ofString(body)).build(),
        HttpResponse.BodyHandlers.ofString());
  }

  final void callTides() throws Exception {
    assertEquals(200, call("GET", "/v1/tides", "").statusCode());
  }

  final void awaitRows(int rows) {
    browser.await(rows + " rows", () -> browser.all(".rows .row").size() == rows);
  }

  final void look() {
    browser.open(control + "/");
    browser.awaitText("#connection", "live");
  }
}
