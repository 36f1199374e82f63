// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.cachette.FreePorts;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.h2.tools.Server;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;

/** {@code cachette capture}, {@code replay} and {@code agent}, with an application of their own. */
@Timeout(120)
@Isolated("they call an application in parallel, which takes both cores")
class CaseCommandsTest {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final int EACH = 6;
  private static final List<String> WAYS = List.of("here", "secure", "pool", "future", "later");

  @TempDir Path folder;

  private final ExecutorService threads = Executors.newCachedThreadPool();

  /** The calls that were made after the response to the incoming one. */
  private final Set<String> late = ConcurrentHashMap.newKeySet();

  private HttpServer service;
  private Server database;
  private Path cases;
  private int port;

  @BeforeEach
  void start() throws IOException, SQLException {
    service = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    service.setExecutor(threads);
    service.createContext("/", this::answer);
    service.start();
    database =
        Server.createTcpServer(
                "-tcpPort", "0", "-ifNotExists", "-baseDir", folder.resolve("db").toString())
            .start();
    cases = folder.resolve("cases");
    port = FreePorts.pair();
  }

  @AfterEach
  void stop() {
    service.stop(0);
    database.stop();
    threads.shutdownNow();
  }

  /** Says back what it was asked. */
  private void answer(HttpExchange call) throws IOException {
    String sent = new String(call.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
    String path = call.getRequestURI().getPath();
    if (path.startsWith("/v1/tides/l")) {
      late.add(path);
    }
    byte[] body =
        (path.equals("/late")
                ? Integer.toString(late.size())
                : "{\"asked\":\"" + path + "\"" + (sent.isEmpty() ? "" : ",\"sent\":" + sent) + "}")
            .getBytes(StandardCharsets.UTF_8);
    call.getResponseHeaders().set("content-type", "application/json");
    call.sendResponseHeaders(200, body.length);
    call.getResponseBody().write(body);
    call.close();
  }

  private String serviceUrl() {
    return "http://127.0.0.1:" + service.getAddress().getPort();
  }

  private String databaseUrl() {
    return "jdbc:h2:tcp://127.0.0.1:" + database.getPort() + "/./book";
  }

  private String application() {
    return "http://127.0.0.1:" + port;
  }

  private List<String> command(String... options) {
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    command.addAll(List.of(options));
    command.addAll(List.of("-XX:TieredStopAtLevel=1", "-cp"));
    command.add(System.getProperty("java.class.path"));
    command.add(LogBookApplication.class.getName());
    command.addAll(List.of(Integer.toString(port), serviceUrl(), databaseUrl()));
    return command;
  }

  private Run capture(List<String> command, String calls, String... more) throws Exception {
    List<String> arguments = new ArrayList<>(List.of("capture", "--to", cases.toString()));
    arguments.addAll(List.of("--app", application(), "--calls", calls));
    arguments.addAll(List.of("--ca", folder.resolve("authority.pem").toString()));
    arguments.addAll(List.of("--at", "https://berths.example=" + serviceUrl()));
    arguments.addAll(List.of(more));
    if (!command.isEmpty()) {
      arguments.add("--");
      arguments.addAll(command);
    }
    return Run.of(arguments.toArray(String[]::new));
  }

  private Run replay(List<String> command, String... more) throws Exception {
    List<String> arguments = new ArrayList<>(List.of("replay", cases.toString()));
    arguments.addAll(List.of("--app", application()));
    arguments.addAll(List.of("--ca", folder.resolve("authority.pem").toString()));
    arguments.addAll(List.of(more));
    arguments.add("--");
    arguments.addAll(command);
    return Run.of(arguments.toArray(String[]::new));
  }

  /** Calls in parallel, all ways at once. */
  private String calls() {
    StringBuilder script = new StringBuilder();
    for (int n = 1; n <= EACH; n++) {
      for (String way : WAYS) {
        script.append("curl -sS --noproxy '*' $CAPTURE_URL/v1/").append(way).append('/');
        script.append(way.charAt(0)).append("x").append(n).append(" > /dev/null & ");
      }
    }
    script.append("wait; ");
    // The last ones make an outgoing call after their response.
    script.append("until [ \"$(curl -sS --noproxy '*' ").append(serviceUrl()).append("/late)\" = ");
    return script.append(EACH).append(" ]; do :; done").toString();
  }

  @Test
  void parallelCallsAreToldApartAndNothingElseIsTouched() throws Exception {
    Run captured = capture(command(), calls());

    assertEquals(0, captured.code(), captured::err);
    Map<String, List<String>> outgoing = outgoing();
    List<String> beats = outgoing.remove("background");
    assertEquals(List.of("GET " + serviceUrl() + "/heartbeat"), beats, captured::err);
    assertEquals(EACH * WAYS.size(), outgoing.size(), captured::out);
    outgoing.forEach(
        (name, calls) -> {
          String n = name.substring(name.lastIndexOf('-') + 1);
          String expected =
              name.contains("secure")
                  ? "POST https://berths.example/v1/bookings " + n
                  : "GET " + serviceUrl() + "/v1/tides/" + n;
          assertEquals(List.of(expected), calls, name + "\n" + captured.err());
        });
    assertEquals(EACH * WAYS.size(), visits());
    for (Path file : files()) {
      assertFalse(Files.readString(file).contains("7f3kQ9vLx2Zs8Rt5Wm1B"), file::toString);
    }

    service.stop(0);
    Run same = replay(command(), "--junit-xml", folder.resolve("results.xml").toString());
    assertEquals(0, same.code(), same::out);
    assertTrue(
        Files.readString(folder.resolve("results.xml")).contains("tests=\"30\" failures=\"0\""));

    Run different = replay(command("-Dflaw=draught"), "--json");
    assertEquals(1, different.code(), different::err);
    JsonNode results = JSON.readTree(different.out()).get("cases");
    for (JsonNode each : results) {
      boolean isSecure = each.get("name").asText().contains("secure");
      assertEquals(!isSecure, each.get("same").asBoolean(), each::toString);
      if (isSecure) {
        String findings = each.get("findings").toString();
        assertTrue(
            findings.contains("\"kind\":\"call changed\"")
                && findings.contains("\"place\":\"body $.draught\""),
            findings);
      }
    }
  }

  @Test
  void applicationThatRunsAlreadyIsCaptured() throws Exception {
    int outgoing = FreePorts.pair();
    Run agent =
        Run.of(
            "agent",
            "--outgoing-port",
            Integer.toString(outgoing),
            "--ca",
            folder.resolve("authority.pem").toString());
    assertEquals(0, agent.code(), agent::err);
    ProcessBuilder builder = new ProcessBuilder(command());
    builder.environment().put("JAVA_TOOL_OPTIONS", agent.out().strip());
    builder.redirectErrorStream(true).redirectOutput(folder.resolve("app.log").toFile());
    Process running = builder.start();
    try {
      // Without a recorder, it calls its service directly.
      String direct =
          "until curl -sS --noproxy '*' " + application() + "/v1/here/x0; do :; done 2> /dev/null";
      Process first = new ProcessBuilder("sh", "-c", direct).start();
      assertTrue(
          new String(first.getInputStream().readAllBytes(), StandardCharsets.UTF_8)
              .contains("/v1/tides/x0"));

      Run captured = capture(List.of(), calls(), "--outgoing-port", Integer.toString(outgoing));
      assertEquals(0, captured.code(), captured::err);
      Map<String, List<String>> found = outgoing();
      assertEquals(List.of("GET " + serviceUrl() + "/v1/tides/px3"), found.get("get-v1-pool-px3"));
    } finally {
      running.destroy();
      running.waitFor();
    }
  }

  @Test
  void programInAnotherLanguageIsCapturedByProxy() throws Exception {
    Path program = folder.resolve("desk.py");
    Files.writeString(
        program,
        """
        import sys, urllib.request
        from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
        class Desk(BaseHTTPRequestHandler):
            def do_GET(self):
                n = self.path.rsplit('/', 1)[1]
                said = urllib.request.urlopen(sys.argv[2] + '/v1/tides/' + n).read()
                self.send_response(200)
                self.send_header('content-type', 'application/json')
                self.send_header('content-length', str(len(said)))
                self.end_headers()
                self.wfile.write(said)
            def log_message(self, *ignored):
                pass
        ThreadingHTTPServer(('127.0.0.1', int(sys.argv[1])), Desk).serve_forever()
        """);
    List<String> command =
        List.of("python3", program.toString(), Integer.toString(port), serviceUrl());
    StringBuilder calls = new StringBuilder();
    for (int n = 1; n <= 8; n++) {
      calls.append("curl -sS --noproxy '*' $CAPTURE_URL/v1/desk/p").append(n).append(" & ");
    }

    Run captured = capture(command, calls + "wait");

    assertEquals(0, captured.code(), captured::err);
    Map<String, List<String>> outgoing = outgoing();
    assertEquals(8, outgoing.size());
    outgoing.forEach(
        (name, made) ->
            assertEquals(
                List.of(
                    "GET " + serviceUrl() + "/v1/tides/" + name.substring("get-v1-desk-".length())),
                made));
    Run same = replay(command);
    assertEquals(0, same.code(), same::out);
  }

  @Test
  void casesAreNamedAtTheTerminal() throws Exception {
    List<String> arguments =
        new ArrayList<>(List.of("capture", "--to", cases.toString(), "--app", application()));
    arguments.addAll(List.of("--ca", folder.resolve("authority.pem").toString(), "--"));
    arguments.addAll(command());
    Process process = Run.builder(arguments.toArray(String[]::new)).start();
    try (var in = process.inputReader();
        var messages = process.errorReader();
        var out = process.outputWriter()) {
      String url = "";
      while (url.isEmpty()) {
        String line = messages.readLine();
        url = line.startsWith("capturing calls at ") ? line.split(" ")[3] : "";
      }
      new ProcessBuilder("curl", "-sS", "--noproxy", "*", url + "/v1/here/a1").start().waitFor();
      String line = in.readLine();
      while (!line.startsWith("#1 ")) {
        line = in.readLine();
      }
      assertTrue(line.contains("GET /v1/here/a1"), line);
      out.write("rename 1 x\nname one two\nvary 1 id\nname 1 a visit: here\nvary 1 $.n\nstop\n");
      out.flush();
      assertEquals(0, process.waitFor());
      String said = String.join("\n", messages.lines().toList());
      assertTrue(said.contains("type: name NUMBER NAME"), said);
      assertTrue(said.contains("name needs the number of a case"), said);
      assertTrue(said.contains("\"id\" is not a place"), said);
    }
    String written = Files.readString(cases.resolve("a-visit-here.har"));
    assertEquals(
        "[\"$.n\"]", JSON.readTree(written).at("/log/entries/0/response/_varying/json").toString());
  }

  @Test
  void exportOfABrowserBecomesCases() throws Exception {
    Path exported = folder.resolve("browser.har");
    Files.writeString(
        exported,
        Files.readString(Path.of("src", "test", "resources", "browser.har"))
            .replace("http://localhost:8080", application()));

    Run converted =
        Run.of(
            "capture",
            "--to",
            cases.toString(),
            "--app",
            application(),
            "--from",
            exported.toString());

    assertEquals(0, converted.code(), converted::err);
    assertEquals("get-v1-here-b1\nget-v1-here-b2-day-2031-04-02\n", converted.out());
    assertTrue(outgoing().values().stream().allMatch(List::isEmpty));
    Run other =
        Run.of(
            "capture",
            "--to",
            cases.toString(),
            "--app",
            "http://localhost:1",
            "--from",
            exported.toString());
    assertEquals(3, other.code());
    assertTrue(other.err().contains("has no call to http://localhost:1"), other::err);
  }

  @Test
  void applicationThatDoesNotStartIsReported() throws Exception {
    Run captured = capture(List.of("sh", "-c", "echo the log book is missing; exit 7"), "true");

    assertEquals(3, captured.code());
    assertTrue(captured.err().contains("the log book is missing"), captured::err);
    assertTrue(captured.err().contains("has exited with 7 before it was ready"), captured::err);
    Run slow = capture(List.of("sleep", "30"), "true", "--ready-within", "300ms");
    assertEquals(3, slow.code());
    assertTrue(slow.err().contains("--ready-within"), slow::err);
  }

  private int visits() throws SQLException {
    try (Connection connection = DriverManager.getConnection(databaseUrl());
        ResultSet found =
            connection.createStatement().executeQuery("select count(*) from visits")) {
      found.next();
      return found.getInt(1);
    }
  }

  private List<Path> files() throws IOException {
    try (Stream<Path> files = Files.list(cases)) {
      return files.sorted().toList();
    }
  }

  /** Returns the outgoing calls of each case, with the vessel that a body has. */
  private Map<String, List<String>> outgoing() throws IOException {
    Map<String, List<String>> all = new TreeMap<>();
    for (Path file : files()) {
      List<String> calls = new ArrayList<>();
      for (JsonNode entry : JSON.readTree(file.toFile()).at("/log/entries")) {
        if (entry.get("_call").asText().equals("outgoing")) {
          String body = entry.at("/request/postData/text").asText();
          String vessel = body.isEmpty() ? "" : " " + JSON.readTree(body).get("vessel").asText();
          calls.add(
              entry.at("/request/method").asText()
                  + " "
                  + entry.at("/request/url").asText()
                  + vessel);
        }
      }
      all.put(file.getFileName().toString().replace(".har", ""), calls);
    }
    return all;
  }
}
