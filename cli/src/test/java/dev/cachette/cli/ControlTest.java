// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The control port: what it does, and whom it does not let in. */
class ControlTest {

  private static final String PILOTS = "stubs: {request: GET /v1/pilots, answer: {json: []}}";

  @TempDir Path folder;

  private Run.Going serve(String... more) throws IOException {
    List<String> arguments = new ArrayList<>(List.of("serve", "--ca"));
    arguments.add(folder.resolve("own").resolve("authority.pem").toString());
    arguments.addAll(List.of(more));
    return new Run.Going(arguments.toArray(String[]::new));
  }

  private Path stubFile() throws IOException {
    Path served = Files.createDirectories(folder.resolve("served"));
    Path file = served.resolve("berths.stubs.yaml");
    Files.writeString(
        file, "stubs: {name: book a berth, request: GET /v1/berths, answer: {text: B-12}}");
    return file;
  }

  private static HttpResponse<String> send(
      String method, String url, String body, String... headers) throws Exception {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(url)).method(method, BodyPublishers.ofString(body));
    for (int at = 0; at < headers.length; at += 2) {
      request.header(headers[at], headers[at + 1]);
    }
    return HttpClient.newHttpClient().send(request.build(), BodyHandlers.ofString());
  }

  @Test
  void stubsAreAddedAndDroppedAndCallsRead() throws Exception {
    try (Run.Going serving = serve(stubFile().toString(), "--control", "0")) {
      String control = serving.message("control at");
      String[] token = {"authorization", "Bearer " + serving.message("token")};
      String address = serving.message("serving at").split(" ")[0];

      HttpResponse<String> added = send("POST", control + "/stubs", PILOTS, token);
      assertEquals(201, added.statusCode(), added.body());
      assertEquals("[]", send("GET", address + "/v1/pilots", "").body());
      send("POST", address + "/v1/other", "{\"a\":1}", "content-type", "application/json");

      JsonNode calls = json(send("GET", control + "/calls", "", token));
      assertEquals(2, calls.get("count").intValue());
      assertEquals("GET /v1/pilots", calls.at("/calls/0/stub").textValue());
      assertTrue(calls.at("/calls/1/unexpected").booleanValue());
      assertEquals(1, calls.at("/calls/1/body/a").intValue());
      assertTrue(calls.at("/calls/1/explanation").textValue().startsWith("Unexpected call: "));
      String counting = control + "/calls/count?request=GET+/v1/pilots&atLeast=";
      assertEquals("1 true", counted(send("GET", counting + "1", "", token)));
      assertEquals("1 false", counted(send("GET", counting + "2&within=100ms", "", token)));

      String stub = control + added.headers().firstValue("location").orElseThrow();
      assertEquals(204, send("DELETE", stub, "", token).statusCode());
      assertEquals(404, send("DELETE", stub, "", token).statusCode());
      assertEquals(501, send("GET", address + "/v1/pilots", "").statusCode());
      assertEquals(204, send("POST", control + "/reset", "", token).statusCode());
      assertTrue(send("GET", control + "/calls", "", token).body().contains("\"count\":0"));
      String stubs = send("GET", control + "/stubs", "", token).body();
      assertTrue(stubs.contains("name: book a berth"), stubs);
    }
  }

  /** Returns the requests that need the token, as the control port describes itself. */
  private static List<String> described(String control) throws Exception {
    JsonNode paths = json(send("GET", control + "/openapi.json", "")).get("paths");
    List<String> lines = new ArrayList<>();
    for (Map.Entry<String, JsonNode> path : paths.properties()) {
      for (Map.Entry<String, JsonNode> operation : path.getValue().properties()) {
        boolean isOpen = operation.getValue().path("security").isArray();
        // Streams have no end to wait for; the live page reads them.
        boolean isStream = path.getKey().endsWith("/events");
        if (operation.getValue().isObject() && !isOpen && !isStream) {
          lines.add(
              operation.getKey().toUpperCase(Locale.ROOT)
                  + " "
                  + path.getKey().replaceAll("\\{.*?}", "1"));
        }
      }
    }
    assertTrue(lines.size() > 20, lines::toString);
    return lines;
  }

  @Test
  void everythingThatIsDescribedIsThere() throws Exception {
    try (Run.Going serving = serve("--control", "0", "--token", "low-water")) {
      String control = serving.message("control at");
      for (String line : described(control)) {
        String[] parts = line.split(" ");
        HttpResponse<String> answer =
            send(parts[0], control + parts[1], "", "authorization", "Bearer low-water");

        assertFalse(answer.body().contains("does not exist"), line + ": " + answer.body());
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"python3, drive.py", "node, drive.mjs"})
  void testsInOtherLanguagesHaveSessions(String language, String name) throws Exception {
    Path program = Path.of(ControlTest.class.getResource(name).toURI());
    try (Run.Going serving = serve(stubFile().toString(), "--control", "0", "--token", "tide")) {
      String control = serving.message("control at");
      Process test =
          new ProcessBuilder(language, program.toString(), control, "tide")
              .redirectErrorStream(true)
              .start();
      String output = new String(test.getInputStream().readAllBytes(), StandardCharsets.UTF_8);

      assertEquals("passed", output.strip());
      assertEquals(0, test.waitFor());
    }
  }

  private static JsonNode json(HttpResponse<String> response) throws IOException {
    return new ObjectMapper().readTree(response.body());
  }

  private static String counted(HttpResponse<String> response) throws IOException {
    return json(response).get("count") + " " + json(response).get("met");
  }

  @Test
  void wrongRequestsAreExplained() throws Exception {
    try (Run.Going serving = serve("--control", "0", "--token", "low-water")) {
      String control = serving.message("control at");
      String[] token = {"authorization", "Bearer low-water"};

      HttpResponse<String> wrong =
          send("POST", control + "/stubs", "stubs: [{request: GET /a}]", token);
      assertEquals(400, wrong.statusCode());
      assertTrue(wrong.body().contains("\"line\":1"), wrong.body());
      assertEquals(400, send("GET", control + "/calls?request=nonsense", "", token).statusCode());
      HttpResponse<String> nothing = send("PUT", control + "/stubs", "", token);
      assertEquals(404, nothing.statusCode());
      assertTrue(
          nothing.body().contains("PUT /stubs does not exist. GET /openapi.json describes"),
          nothing.body());
      assertTrue(json(send("GET", control + "/openapi.json", "")).at("/paths").has("/calls/count"));
    }
  }

  @Test
  void onlyTheTokenLetsIn() throws Exception {
    try (Run.Going serving = serve("--control", "0")) {
      String control = serving.message("control at");
      String token = serving.message("token");
      for (String line : described(control)) {
        String method = line.split(" ")[0];
        String url = control + line.split(" ")[1];
        for (String wrong :
            List.of("", "Bearer", "Bearer x", "Basic " + token, token, "Bearer " + token + "x")) {
          String[] headers =
              wrong.isEmpty() ? new String[0] : new String[] {"authorization", wrong};
          assertEquals(401, send(method, url, "", headers).statusCode(), line + " by " + wrong);
        }
        // A page of another site, whose visitor has the token in a browser.
        assertEquals(
            403,
            send(method, url, "", "authorization", "Bearer " + token, "origin", "https://a.example")
                .statusCode());
      }
      assertEquals(
          200,
          send("GET", control + "/calls", "", "authorization", "Bearer " + token).statusCode());
    }
  }

  /** A name that another site lets stand for this machine. */
  @Test
  void withoutATokenOnlyNamesOfThisMachineLetIn() throws Exception {
    try (Run.Going serving = serve("--control", "0", "--no-token")) {
      int port = URI.create(serving.message("control at")).getPort();
      for (String host :
          List.of(
              "localhost",
              "LOCALHOST",
              "localhost:" + port,
              "127.0.0.1",
              "127.0.0.1:" + port,
              "[::1]",
              "[::1]:" + port)) {
        assertEquals("200", status(port, "GET /calls HTTP/1.1", "Host: " + host), host);
      }
      for (String host :
          List.of(
              "localhost.evil.example",
              "localhost.evil.example:" + port,
              "evil.example",
              "localhost.",
              "localhosts",
              "xlocalhost",
              "127.0.0.1.evil.example",
              "localhost@evil.example",
              "evil.example:x:80",
              "[::1].evil.example",
              "0x7f.1")) {
        assertEquals("403", status(port, "GET /calls HTTP/1.1", "Host: " + host), host);
      }
      assertEquals(
          "403", status(port, "GET http://evil.example/calls HTTP/1.1", "Host: localhost"));
      assertEquals(
          "403", status(port, "GET http://localhost/calls HTTP/1.1", "Host: evil.example"));
      assertEquals(
          "403", status(port, "GET /calls HTTP/1.1", "Host: localhost\r\nHost: localhost"));
    }
  }

  private static String status(int port, String line, String headers) throws IOException {
    try (Socket socket = new Socket("127.0.0.1", port)) {
      socket.setSoTimeout(20_000);
      String request = line + "\r\n" + headers + "\r\nConnection: close\r\n\r\n";
      socket.getOutputStream().write(request.getBytes(StandardCharsets.US_ASCII));
      String response = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      return response.split(" ")[1];
    }
  }

  @Test
  void withoutATokenStubsAreConfined() throws Exception {
    Path served = stubFile().getParent();
    Path secret = Files.writeString(folder.resolve("secret.txt"), "made up");
    Files.writeString(served.resolve("tides.txt"), "04:10");
    Files.writeString(folder.resolve("more.stubs.yaml"), PILOTS);
    Files.createSymbolicLink(served.resolve("link.txt"), secret);
    try (Run.Going serving =
        serve(served.resolve("berths.stubs.yaml").toString(), "--control", "0", "--no-token")) {
      String control = serving.message("control at");
      String address = serving.message("serving at").split(" ")[0];
      for (String refused :
          List.of(
              "answer: {file: " + secret + "}",
              "answer: {file: /etc/passwd}",
              "answer: {file: " + served + "/../secret.txt}",
              "answer: {file: " + served.resolve("link.txt") + "}",
              "saveBodyTo: " + folder.resolve("written.txt") + ", answer: {text: a}",
              "answer: {realService: true}",
              "answers: [{text: a}, {realService: true}]")) {
        HttpResponse<String> response =
            send("POST", control + "/stubs", "stubs: {request: GET /a, " + refused + "}");
        assertEquals(400, response.statusCode(), refused);
        assertTrue(response.body().contains("use a token"), response.body());
      }
      HttpResponse<String> included =
          send("POST", control + "/stubs", "include: " + folder.resolve("more.stubs.yaml"));
      assertEquals(400, included.statusCode());
      assertTrue(included.body().contains("use a token"), included.body());

      String within = "answer: {file: " + served.resolve("tides.txt") + "}";
      assertEquals(
          201,
          send("POST", control + "/stubs", "stubs: {request: GET /a, " + within + "}")
              .statusCode());
      assertEquals("04:10", send("GET", address + "/a", "").body());
      String writing =
          "stubs: {request: POST /b, saveBodyTo: "
              + served.resolve("w.txt")
              + ", answer: {text: b}}";
      assertEquals(201, send("POST", control + "/stubs", writing).statusCode());
      send("POST", address + "/b", "Kittiwake");
      assertEquals("Kittiwake", Files.readString(served.resolve("w.txt")));
    }
    assertFalse(Files.exists(folder.resolve("written.txt")));
  }

  @Test
  void withATokenStubsReachEverything() throws Exception {
    Path elsewhere = Files.writeString(folder.resolve("tides.txt"), "04:10");
    try (Run.Going serving = serve("--control", "0", "--token", "low-water")) {
      String control = serving.message("control at");
      assertEquals(
          201,
          send(
                  "POST",
                  control + "/stubs",
                  "stubs: {request: GET /a, answer: {file: " + elsewhere + "}}",
                  "authorization",
                  "Bearer low-water")
              .statusCode());
    }
  }

  @Test
  void nobodyElseReadsTheFolderOfTheAuthority() throws Exception {
    try (Run.Going serving = serve(stubFile().toString())) {
      serving.message("serving at");
      assertEquals(
          "rwx------",
          PosixFilePermissions.toString(Files.getPosixFilePermissions(folder.resolve("own"))));
    }
  }

  /** ESC begins a sequence that moves the cursor, or changes the title of the window. */
  @Test
  void nothingThatACallerSendsControlsTheTerminal() throws Exception {
    try (Run.Going serving = serve(stubFile().toString())) {
      String address = serving.message("serving at").split(" ")[0];
      int port = URI.create(address).getPort();
      for (String sent :
          List.of(
              "GET /\u001b]0;x\u0007 HTTP/1.1\r\nHost: berths.example\r\n\r\n",
              "GET /%1b[2J HTTP/1.1\r\nHost: berths.example\r\n\r\n",
              "GET /a HTTP/1.1\r\nHost: berths\u001b.example\r\n\r\n",
              "GET /a HTTP/1.1\r\nHost: berths.example\r\nx-a: \u009b2J\u001b[2J\r\n\r\n",
              "POST /a HTTP/1.1\r\nHost: a.example\r\ncontent-length: 4\r\n\r\n\u001b[2J",
              "X\u001b[2J /a HTTP/1.1\r\nHost: a.example\r\n\r\n")) {
        assertPrintable(responseTo(port, sent));
      }
      serving.stop();
      assertPrintable(serving.out());
      assertPrintable(serving.rest());
    }
  }

  private static String responseTo(int port, String sent) throws IOException {
    try (Socket socket = new Socket("127.0.0.1", port)) {
      socket.setSoTimeout(20_000);
      socket.getOutputStream().write(sent.getBytes(StandardCharsets.ISO_8859_1));
      socket.shutdownOutput();
      return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  private static void assertPrintable(String text) {
    assertTrue(
        text.chars()
            .noneMatch(
                c -> c < ' ' && c != '\n' && c != '\r' && c != '\t' || c >= 0x7f && c <= 0x9f),
        () -> text.replace('\u001b', '#').replace('\u009b', '#'));
  }
}
