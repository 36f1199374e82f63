// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.HttpURLConnection;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** {@code cachette record}: nothing is lost, and it says why a call failed. */
@Timeout(120)
class RecordTest {

  private static final String NOTE = "9f8Gh2Lq0PzX7vBn3MkW5tRy";

  @TempDir Path folder;
  private HttpServer service;
  private Path cassette;

  @BeforeEach
  void open() throws IOException {
    cassette = folder.resolve("tides.har");
    service = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    service.createContext("/", RecordTest::answer);
    service.start();
  }

  @AfterEach
  void close() {
    service.stop(0);
  }

  private static void answer(HttpExchange exchange) throws IOException {
    boolean large = exchange.getRequestURI().getPath().equals("/large");
    byte[] body = large ? new byte[30_000_000] : ("note " + NOTE).getBytes(StandardCharsets.UTF_8);
    exchange.getResponseHeaders().set("content-type", "text/plain");
    exchange.sendResponseHeaders(200, body.length);
    exchange.getResponseBody().write(body);
    exchange.close();
  }

  private String origin() {
    return "http://localhost:" + service.getAddress().getPort();
  }

  private static int get(String url, String... headers) throws IOException {
    HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
    for (int at = 0; at < headers.length; at += 2) {
      connection.setRequestProperty(headers[at], headers[at + 1]);
    }
    return connection.getResponseCode();
  }

  /** Records a command. */
  private Run record(String... command) throws Exception {
    List<String> arguments = new ArrayList<>(List.of("record", "--to", cassette.toString(), "--"));
    arguments.addAll(List.of(command));
    return Run.of(arguments.toArray(String[]::new));
  }

  private int recorded() throws IOException {
    return new ObjectMapper().readTree(cassette.toFile()).at("/log/entries").size();
  }

  @Test
  void aKilledRecordingHasEveryFinishedCall() throws Exception {
    int expected = 0;
    for (int round = 1; round <= 3; round++) {
      try (Run.Going recording = recording()) {
        String address = recording.message("recording at").split(" ")[0];
        List<String> urls = new ArrayList<>();
        for (int call = 1; call <= 10 * round; call++) {
          urls.add(address + "/v1?round=" + round + "&call=" + call);
        }
        IntStream.range(0, urls.size()).parallel().forEach(at -> got(urls.get(at)));
        expected += urls.size();
      }
      assertEquals(expected, recorded());
    }
    assertEquals(0, Run.of("check", cassette.toString()).code());
  }

  private static void got(String url) {
    try {
      assertEquals(200, get(url));
    } catch (IOException failed) {
      throw new AssertionError(failed);
    }
  }

  private Run.Going recording(String... more) throws IOException {
    List<String> arguments =
        new ArrayList<>(List.of("record", "--to", cassette.toString(), "--upstream", origin()));
    arguments.addAll(List.of(more));
    return new Run.Going(arguments.toArray(String[]::new));
  }

  @Test
  void whatTurnsOutToBeSecretIsRedactedInEarlierCallsAtOnce() throws Exception {
    try (Run.Going recording = recording()) {
      String address = recording.message("recording at").split(" ")[0];
      assertEquals(200, get(address + "/v1"));
      long patience = System.nanoTime() + Duration.ofSeconds(20).toNanos();
      while (!Files.exists(cassette) || !Files.readString(cassette).contains(NOTE)) {
        assertTrue(System.nanoTime() < patience, "the call is not in the file");
        Thread.onSpinWait();
      }
      assertEquals(200, get(address + "/v2", "Authorization", "Bearer " + NOTE));
    }
    assertEquals(2, recorded());
    assertFalse(Files.readString(cassette).contains(NOTE));
  }

  @Test
  void earlierEntriesKeepTheirBytes() throws Exception {
    String before = "";
    for (int round = 1; round <= 3; round++) {
      Run run = record("curl", "-s", origin() + "/v" + round);
      assertEquals(0, run.code(), run.err());
      assertEquals(round, recorded());
      String now = Files.readString(cassette);
      String entries = now.substring(now.indexOf("\"entries\""), now.lastIndexOf("\n    ]"));
      assertTrue(entries.startsWith(before), now);
      before = entries;
    }
  }

  @Test
  void rewritingReplacesOldCallsAtTheEnd() throws Exception {
    for (String path : List.of("/v1", "/v2")) {
      Run.of(
          "record", "--rewrite", "--to", cassette.toString(), "--", "curl", "-s", origin() + path);
    }
    assertEquals(1, recorded());
    assertTrue(Files.readString(cassette).contains("/v2"));
  }

  @Test
  void theExitCodeOfTheCommandComesThroughAndSilenceIsExplained() throws Exception {
    Run run = record("sh", "-c", "exit 7");
    assertEquals(7, run.code());
    assertTrue(run.err().contains("No call came through the proxy."), run.err());
    assertTrue(run.err().contains("--upstream ORIGIN"), run.err());
    assertFalse(Files.exists(cassette));
  }

  @Test
  void aCallThatItsClientBreaksOffIsCounted() throws Exception {
    Run run = record("sh", "-c", "curl -s " + origin() + "/large | head -c 10 > /dev/null");

    assertEquals(
        "recorded: 1 call, 0 unexpected, 1 broken off by the client, in " + cassette + "\n",
        run.err());
  }

  @Test
  void theCommandGetsItsArgumentsAsTheyAre() throws Exception {
    Files.writeString(folder.resolve("body.txt"), "--help");
    Run run =
        Run.in(
            folder,
            "record",
            "--to",
            "c.har",
            "--",
            "printf",
            "<%s>",
            "@body.txt",
            "@none",
            "-",
            "",
            "--to",
            "--",
            "two words",
            "{{x}}",
            "${sys:user.home}",
            "'q'");

    assertEquals(
        "<@body.txt><@none><-><><--to><--><two words><{{x}}><${sys:user.home}><'q'>", run.out());
    assertEquals(0, run.code(), run.err());
  }

  @Test
  void aJvmIsRecordedWhateverItsProxySettingsAre() throws Exception {
    Run run =
        record(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            Path.of("src", "test", "resources", "Desk.java").toAbsolutePath().toString(),
            origin() + "/v1",
            "https://tides.example/v1");
    assertEquals(List.of("200", "502", "42"), run.out().lines().toList(), run.err());
    assertEquals(0, run.code(), run.err());
    assertEquals(2, recorded());
    assertTrue(run.err().contains("1 x https://tides.example: unknown host"), run.err());
  }

  @Test
  void whyACallFailedIsSaidToItsCallerAndAtTheEnd() throws Exception {
    int unused;
    try (ServerSocket socket = new ServerSocket(0)) {
      unused = socket.getLocalPort();
    }
    ServerSocket plain = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    Thread server = new Thread(() -> answerInClear(plain));
    server.start();
    String[][] cases = {
      {"http://localhost:" + unused, "connection refused", "Fix: start the service"},
      {"http://nowhere.example", "unknown host", "Fix: correct the host name"},
      {
        "https://localhost:" + plain.getLocalPort(),
        "does not speak TLS",
        "Fix: check that the service"
      },
    };
    for (String[] each : cases) {
      Run run = record("curl", "-s", each[0] + "/");
      assertTrue(run.out().startsWith("The real service did not answer: GET "), run.out());
      assertTrue(run.out().contains(each[1]), run.out());
      assertTrue(run.out().contains(each[2]), run.out());
      assertTrue(run.err().contains("1 failed"), run.err());
      assertTrue(run.err().contains("1 x " + each[0]), run.err());
    }
    assertEquals(cases.length, recorded());
    server.join();
  }

  private static void answerInClear(ServerSocket plain) {
    try (plain;
        Socket accepted = plain.accept()) {
      accepted
          .getOutputStream()
          .write("HTTP/1.1 400 Bad Request\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
      accepted.getInputStream().transferTo(OutputStream.nullOutputStream());
    } catch (IOException clientLeft) {
      // It has seen enough.
    }
  }

  @Test
  void aServiceWithAPrivateAuthorityIsTrustedByOption() throws Exception {
    Path stubs = folder.resolve("tides.yaml");
    Files.writeString(
        stubs,
        """
        stubs:
          - request: GET https://staging.example/v1
            answer: { text: "${header.host}" }
        """);
    Path certificate = folder.resolve("ca.pem");
    try (Run.Going staging =
        new Run.Going(
            "serve",
            stubs.toString(),
            "--for",
            "https://staging.example",
            "--ca",
            folder.resolve("authority.pem").toString(),
            "--ca-cert-out",
            certificate.toString())) {
      String at = staging.message("serving at http://").split(" ")[0];
      String upstream = "https://localhost:" + at.substring(at.indexOf(':') + 1);
      String[] refused = {"--upstream", upstream};
      assertTrue(recordedFrom(refused).contains("--trusted-ca FILE"), recordedFrom(refused));
      assertEquals(
          upstream.substring("https://".length()),
          recordedFrom("--upstream", upstream, "--trusted-ca", certificate.toString()));
      assertEquals(
          "tides.example",
          recordedFrom(
              "--upstream",
              upstream,
              "--upstream-name",
              "tides.example",
              "--for",
              "https://tides.example",
              "--trusted-ca",
              certificate.toString()));
    }
  }

  private String recordedFrom(String... options) throws Exception {
    List<String> arguments = new ArrayList<>(List.of("record", "--to", cassette.toString()));
    arguments.addAll(List.of(options));
    try (Run.Going recording = new Run.Going(arguments.toArray(String[]::new))) {
      String address = recording.message("recording at").split(" ")[0];
      HttpURLConnection connection =
          (HttpURLConnection) URI.create(address + "/v1").toURL().openConnection();
      boolean failed = connection.getResponseCode() >= 400;
      String said =
          new String(
              (failed ? connection.getErrorStream() : connection.getInputStream()).readAllBytes(),
              StandardCharsets.UTF_8);
      recording.stop();
      return said;
    }
  }
}
