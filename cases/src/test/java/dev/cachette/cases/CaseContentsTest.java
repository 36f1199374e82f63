// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.cachette.replay.CaseResult;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Random;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.zip.Deflater;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whatever an application answers reaches its caller unchanged, and is the same in a replay. */
class CaseContentsTest {

  @TempDir Path folder;

  private final ExecutorService threads = Executors.newCachedThreadPool();
  private HttpServer application;

  @BeforeEach
  void start() throws IOException {
    application = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    application.setExecutor(threads);
    application.createContext("/", this::answer);
    application.start();
  }

  @AfterEach
  void stop() {
    application.stop(0);
    threads.shutdownNow();
  }

  private String url() {
    return "http://localhost:" + application.getAddress().getPort();
  }

  private void answer(HttpExchange call) throws IOException {
    byte[] sent = call.getRequestBody().readAllBytes();
    switch (call.getRequestURI().getPath().substring(1)) {
      case "gzip" -> {
        call.getResponseHeaders().set("content-encoding", "gzip");
        send(call, 200, "application/json", gzip("{\"id\":\"" + UUID.randomUUID() + "\"}"));
      }
      case "chunked" -> {
        call.getResponseHeaders().set("content-type", "text/plain");
        call.sendResponseHeaders(200, 0);
        try (OutputStream out = call.getResponseBody()) {
          out.write("one ".getBytes(StandardCharsets.UTF_8));
          out.flush();
          out.write("two".getBytes(StandardCharsets.UTF_8));
        }
      }
      case "binary" -> send(call, 200, "image/png", random(5_000));
      case "large" -> send(call, 200, "application/octet-stream", random(3_000_000));
      case "empty" -> send(call, 200, "text/plain", new byte[0]);
      case "nothing" -> call.sendResponseHeaders(204, -1);
      case "unmodified" -> call.sendResponseHeaders(304, -1);
      case "moved" -> {
        call.getResponseHeaders().set("location", url() + "/empty?at=" + UUID.randomUUID());
        send(call, 302, "text/html", "<p>moved</p>".getBytes(StandardCharsets.UTF_8));
      }
      default -> answerText(call, sent);
    }
    call.close();
  }

  private void answerText(HttpExchange call, byte[] sent) throws IOException {
    switch (call.getRequestURI().getPath().substring(1)) {
      case "latin" ->
          send(
              call,
              200,
              "text/plain; charset=ISO-8859-1",
              "Möwe".getBytes(StandardCharsets.ISO_8859_1));
      case "umlaut" ->
          send(call, 200, "application/json", "{\"vessel\":\"Möwe ⚓\"}".getBytes("UTF-8"));
      case "link" ->
          send(
              call,
              200,
              "application/json",
              ("{\"self\":\"" + url() + "/link\"}").getBytes(StandardCharsets.UTF_8));
      case "html" ->
          send(
              call,
              200,
              "text/html",
              ("<p>" + UUID.randomUUID() + "</p>").getBytes(StandardCharsets.UTF_8));
      case "headers" -> {
        call.getResponseHeaders().add("vary", "accept");
        call.getResponseHeaders().add("vary", "origin");
        call.getResponseHeaders().add("x-request-id", UUID.randomUUID().toString());
        send(call, 200, "text/plain", "x".getBytes(StandardCharsets.UTF_8));
      }
      case "echo" -> send(call, 200, call.getRequestHeaders().getFirst("content-type"), sent);
      default -> send(call, 404, "text/plain", "none".getBytes(StandardCharsets.UTF_8));
    }
  }

  private static void send(HttpExchange call, int status, String type, byte[] body)
      throws IOException {
    call.getResponseHeaders().set("content-type", type);
    boolean isHead = call.getRequestMethod().equals("HEAD");
    call.sendResponseHeaders(status, isHead || body.length == 0 ? -1 : body.length);
    if (!isHead && body.length > 0) {
      call.getResponseBody().write(body);
    }
  }

  private static byte[] random(int size) {
    byte[] bytes = new byte[size];
    new Random(7).nextBytes(bytes);
    return bytes;
  }

  /** Always as long for texts of the same length. */
  private static final class Stored extends GZIPOutputStream {

    Stored(OutputStream out) throws IOException {
      super(out);
      def.setLevel(Deflater.NO_COMPRESSION);
    }
  }

  private static byte[] gzip(String text) throws IOException {
    ByteArrayOutputStream packed = new ByteArrayOutputStream();
    try (OutputStream out = new Stored(packed)) {
      out.write(text.getBytes(StandardCharsets.UTF_8));
    }
    return packed.toByteArray();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "GET | gzip | |",
        "GET | chunked | |",
        "GET | binary | |",
        "GET | large | |",
        "GET | empty | |",
        "GET | nothing | |",
        "GET | unmodified | |",
        "GET | moved | |",
        "GET | latin | |",
        "GET | umlaut | |",
        "GET | link | |",
        "GET | html | |",
        "GET | headers | |",
        "GET | unknown/%C3%B6?q=a+b&q=%26 | |",
        "HEAD | binary | |",
        "OPTIONS | nothing | |",
        "DELETE | nothing | |",
        "PUT | echo | text/plain | one\\ntwo",
        "PATCH | echo | application/merge-patch+json | {\"a\":null}",
        "POST | echo | application/x-www-form-urlencoded | day=2031-04-02&vessel=M%C3%B6we",
        "POST | echo | application/xml | <a><b c='1'/></a>",
        "POST | echo | multipart/form-data; boundary=x | --x\\r"
            + "\\n"
            + "Content-Disposition: form-data; name=\"a\"\\r"
            + "\\n"
            + "\\r"
            + "\\n"
            + "1\\r"
            + "\\n"
            + "--x--\\r"
            + "\\n",
        "POST | echo | application/json | {not JSON",
        "POST | echo | application/octet-stream | \u0001\u0002"
      })
  void isTheSame(String method, String path, String type, String body) throws Exception {
    HttpResponse<byte[]> direct = send(url(), method, path, type, body);
    try (Capture capture =
        Capture.open(CaptureSettings.of(folder, url()), new CaptureListener() {})) {
      HttpResponse<byte[]> captured = send(capture.baseUrl(), method, path, type, body);
      assertEquals(direct.statusCode(), captured.statusCode());
      assertEquals(direct.body().length, captured.body().length);
    }
    for (int time = 0; time < 2; time++) {
      for (CaseResult each : Cases.in(folder).against(url()).replay().cases()) {
        assertTrue(each.isSame(), each::explanation);
      }
    }
  }

  private static HttpResponse<byte[]> send(
      String url, String method, String path, String type, String body)
      throws IOException, InterruptedException {
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url + "/" + path));
    if (type != null) {
      request.header("content-type", type);
    }
    request.method(
        method,
        body == null
            ? BodyPublishers.noBody()
            : BodyPublishers.ofString(body.replace("\\r", "\r").replace("\\n", "\n")));
    return HttpClient.newHttpClient().send(request.build(), BodyHandlers.ofByteArray());
  }
}
