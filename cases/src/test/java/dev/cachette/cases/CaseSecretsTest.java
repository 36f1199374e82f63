// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.cachette.cassette.Redaction;
import dev.cachette.replay.CaseResult;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Secrets are in no file, no name of a file, and no list, wherever they were. */
class CaseSecretsTest {

  private static final String SECRET = "q8Zt5Lr2Xw9Kf4Hn7Vb3";

  @TempDir Path folder;

  private final ExecutorService threads = Executors.newCachedThreadPool();
  private HttpServer application;
  private HttpServer service;
  private volatile HttpClient client = HttpClient.newHttpClient();

  @BeforeEach
  void start() throws IOException {
    application = server(this::passOn);
    service = server(call -> answer(call, "{\"done\":true}", ""));
  }

  @AfterEach
  void stop() {
    application.stop(0);
    service.stop(0);
    threads.shutdownNow();
  }

  private HttpServer server(com.sun.net.httpserver.HttpHandler handler) throws IOException {
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setExecutor(threads);
    server.createContext("/", handler);
    server.start();
    return server;
  }

  private static String url(HttpServer server) {
    return "http://localhost:" + server.getAddress().getPort();
  }

  /** Sends what it gets to the service, and says it back. */
  private void passOn(HttpExchange call) throws IOException {
    String body = new String(call.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(url(service) + call.getRequestURI()))
            .method(call.getRequestMethod(), BodyPublishers.ofString(body));
    for (String name : List.of("authorization", "cookie", "x-api-key", "content-type")) {
      String value = call.getRequestHeaders().getFirst(name);
      if (value != null) {
        request.header(name, value);
      }
    }
    try {
      client.send(request.build(), BodyHandlers.ofString());
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
    String given = call.getRequestHeaders().getFirst("x-give");
    answer(call, given == null ? "{\"got\":\"it\"}" : given, "session=" + SECRET + "-of-cookie");
  }

  private static void answer(HttpExchange call, String text, String cookie) throws IOException {
    call.getRequestBody().readAllBytes();
    byte[] body = text.getBytes(StandardCharsets.UTF_8);
    call.getResponseHeaders().set("content-type", "application/json");
    if (!cookie.isEmpty()) {
      call.getResponseHeaders().set("set-cookie", cookie);
    }
    call.sendResponseHeaders(200, body.length);
    call.getResponseBody().write(body);
    call.close();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "/a | authorization: Bearer {S} | | ",
        "/a | authorization: Basic {B} | | ",
        "/a | cookie: session={S}; theme=dark | | ",
        "/a | x-api-key: {S} | | ",
        "/a?api_key={S}&day=1 | | | ",
        "/a?access_token={S} | | | ",
        "/a | content-type: application/json | {\"password\":\"{S}\"} | ",
        "/a | content-type: application/json | {\"user\":{\"clientSecret\":\"{S}\"}} | ",
        "/a | content-type: application/x-www-form-urlencoded | user=mara&password={S} | ",
        "/a | content-type: application/xml | <user><password>{S}</password></user> | ",
        "/a | x-give: {\"access_token\":\"{S}\",\"expires_in\":60} | | ",
        "/a | x-give: {\"refreshToken\":\"{S}\"} | | ",
        "/a/{S}/b | x-named: true | | named",
        "/a | content-type: text/plain | the word is {S} | named"
      })
  void isRedacted(String path, String header, String body, String named) throws Exception {
    CaptureSettings settings = CaptureSettings.of(folder, url(application));
    if (named != null) {
      settings = settings.redaction(Redaction.byDefault().secret("WORD", SECRET));
    }
    String listed;
    try (Capture capture = Capture.open(settings, new CaptureListener() {})) {
      client =
          HttpClient.newBuilder()
              .version(HttpClient.Version.HTTP_1_1)
              .proxy(
                  ProxySelector.of(new InetSocketAddress("127.0.0.1", capture.proxy().getPort())))
              .build();
      send(capture.baseUrl() + filled(path), filled(header), filled(body));
      send(capture.baseUrl() + "/later", "", "");
      capture.close();
      listed = capture.cases().toString();
    }

    requireNone(listed);
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file : files.toList()) {
        requireNone(file.getFileName().toString());
        requireNone(Files.readString(file));
      }
    }
    client = HttpClient.newHttpClient();
    CaseReplay replay = Cases.in(folder).against(url(application));
    if (named != null) {
      replay.secret("WORD", SECRET);
    }
    for (CaseResult each : replay.replay().cases()) {
      requireNone(each.explanation());
      assertTrue(each.isSame(), each::explanation);
    }
  }

  private static String filled(String text) {
    String basic = Base64.getEncoder().encodeToString(("mara:" + SECRET).getBytes());
    return text == null ? "" : text.replace("{S}", SECRET).replace("{B}", basic);
  }

  private static void requireNone(String text) {
    assertFalse(text.contains(SECRET), text);
    assertFalse(text.contains(filled("{B}")), text);
  }

  private static void send(String url, String header, String body) throws Exception {
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url));
    if (!header.isEmpty()) {
      request.header(header.split(": ", 2)[0], header.split(": ", 2)[1]);
    }
    request.method(body.isEmpty() ? "GET" : "POST", BodyPublishers.ofString(body));
    int status =
        HttpClient.newHttpClient().send(request.build(), BodyHandlers.ofString()).statusCode();
    assertEquals(200, status);
  }
}
