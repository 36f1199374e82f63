// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static java.nio.file.StandardCopyOption.REPLACE_EXISTING;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.InputStream;
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
import java.security.MessageDigest;
import java.security.cert.CertificateFactory;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A served stub file, called by programs that are not Java, and controlled over HTTP. */
class ServeTest {

  private static final Path EXAMPLES =
      Path.of("..", "examples", "src", "test").toAbsolutePath().normalize();
  private static final String HARBOUR = EXAMPLES.resolve("stubs/harbour.stubs.yaml").toString();
  private static final String ARRIVAL =
      EXAMPLES.resolve("cassettes/harbour/arrival.har").toString();
  private static final String TIDES = "tides.example/v1/stations/Marrow%20Bay/tides?day=2031-04-02";

  @TempDir Path folder;

  private Run.Going serve(String... more) throws Exception {
    List<String> arguments = new ArrayList<>(List.of("serve", "--ca"));
    arguments.add(folder.resolve("authority.pem").toString());
    arguments.addAll(List.of("--ca-cert-out", folder.resolve("ca.pem").toString()));
    arguments.addAll(List.of(more));
    return new Run.Going(arguments.toArray(String[]::new));
  }

  private static String address(String said) {
    return said.split(" ")[0];
  }

  /** Returns what curl prints. */
  private static String curl(String... arguments) throws Exception {
    List<String> command = new ArrayList<>(List.of("curl", "-sS", "--noproxy", ""));
    command.addAll(List.of(arguments));
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    try (InputStream in = process.getInputStream()) {
      String said = new String(in.readAllBytes(), StandardCharsets.UTF_8);
      assertTrue(process.waitFor(30, TimeUnit.SECONDS), "curl does not end");
      return said;
    }
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
  void curlIsAnsweredByProxyByHostHeaderAndByHttps() throws Exception {
    try (Run.Going serving = serve(HARBOUR)) {
      String address = address(serving.message("serving at"));
      String port = address.substring(address.lastIndexOf(':') + 1);
      String ca = folder.resolve("ca.pem").toString();
      String high = "{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"]}";

      assertEquals(high, curl("--proxy", address, "http://" + TIDES));
      assertEquals(high, curl("--proxy", address, "--cacert", ca, "https://" + TIDES));
      assertEquals(
          high + " 2",
          curl(
              "--http2",
              "--cacert",
              ca,
              "-w",
              " %{http_version}",
              "--connect-to",
              "tides.example:443:127.0.0.1:" + port,
              "https://" + TIDES));
      assertEquals(
          high,
          curl("-H", "Host: tides.example", address + TIDES.substring("tides.example".length())));
      assertTrue(
          curl("--proxy", address, "http://nowhere.example/").startsWith("Unexpected call: "));

      String deep = "{\"vessel\": {\"draught\": 5.1}}";
      assertContains(
          "because of JSON $.vessel.draught",
          curl("-H", "Host: berths.example", "-d", deep, address + "/v1/bookings"));

      assertContains("Likely cause: the call has no target host", curl(address + "/v1/bookings"));

      assertEquals(0, serving.stop());
      assertEquals("7 calls, 3 unexpected", serving.message("stopped:"));
      String out = serving.out();
      assertEquals(7, out.lines().count(), out);
      assertTrue(out.contains("->  200  \"tides of the day\""), out);
      assertTrue(out.contains("GET http://nowhere.example/  ->  501  no stub"), out);
    }
    assertEquals(
        "rw-------",
        PosixFilePermissions.toString(
            Files.getPosixFilePermissions(folder.resolve("authority.pem"))));
  }

  @Test
  void theAuthorityIsTheSameNextTime() throws Exception {
    for (int time = 0; time < 2; time++) {
      try (Run.Going serving = serve(HARBOUR)) {
        serving.message("serving at");
      }
      Path first = folder.resolve("first.pem");
      if (time == 0) {
        Files.move(folder.resolve("ca.pem"), first);
      } else {
        assertEquals(Files.readString(first), Files.readString(folder.resolve("ca.pem")));
      }
    }
  }

  @Test
  void aCallThatWouldComeBackForEverEnds() throws Exception {
    try (Run.Going serving = serve("--passthrough")) {
      String address = address(serving.message("serving at"));

      assertContains("It cannot be passed on", curl(address + "/"));
    }
    Path cassette = folder.resolve("own.har");
    try (Run.Going recording = new Run.Going("record", "--to", cassette.toString())) {
      String address = address(recording.message("recording at"));
      assertContains("use that address as a proxy", curl(address + "/"));
      assertEquals(0, recording.stop());
      assertContains("1 call, 1 unexpected", recording.message("recorded:"));
    }
    assertFalse(Files.exists(cassette), "nothing was recorded");
  }

  @Test
  void aCassetteAndAnOriginAreServed() throws Exception {
    try (Run.Going serving = serve(ARRIVAL, "--for", "https://tides.example")) {
      String address = address(serving.message("serving at"));

      HttpResponse<String> tides =
          send("GET", address + TIDES.substring("tides.example".length()), "");

      assertEquals(200, tides.statusCode(), tides.body());
      assertTrue(tides.body().contains("\"high\""), tides.body());
    }
  }

  @Test
  void aDescriptionAnswersByItsExamplesAndIsReadAgainAsCassettesAre() throws Exception {
    Path berths = folder.resolve("berths.openapi.yaml");
    Files.copy(EXAMPLES.resolve("stubs/berths.openapi.yaml"), berths);
    Path arrival = folder.resolve("arrival.har");
    Files.copy(Path.of(ARRIVAL), arrival);
    String[] token = {"authorization", "Bearer x", "content-type", "application/json"};
    String wish = "{\"vessel\":{\"name\":\"Kittiwake\",\"draught\":4.2},\"from\":\"04:10\"}";
    try (Run.Going serving = serve(berths.toString(), arrival.toString())) {
      String said = serving.message("serving at");
      String proxy = address(said);
      String bookings = "https://berths.example/v1/bookings";
      String[] book = {"--proxy", proxy, "-k", "-H", "authorization: Bearer x", ""};

      book[5] = bookings + "?day=2031-04-02";
      assertContains("[{\"berth\":\"B-12\",\"from\":\"04:10\"", curl(book));
      book[5] = bookings + "?day=tomorrow";
      assertContains("The request violates the API description", curl(book));
      assertTrue(curl("--proxy", proxy, "http://" + TIDES).contains("\"04:10\""));

      Files.writeString(berths, Files.readString(berths).replace("example: B-12", "example: C-1"));
      assertTrue(serving.message("reloaded:").contains("berths.openapi.yaml"));
      book[5] = bookings + "?day=2031-04-02";
      assertContains("C-1", curl(book));

      Files.writeString(arrival, Files.readString(arrival).replace("04:10", "05:20"));
      assertTrue(serving.message("reloaded:").contains("arrival.har, "));
      assertTrue(curl("--proxy", proxy, "http://" + TIDES).contains("\"05:20\""));

      Files.writeString(berths, "openapi: 2.0\n");
      assertTrue(serving.message("reload failed").contains("berths.openapi.yaml:1: this is not"));
      assertContains("C-1", curl(book));

      assertEquals(0, serving.stop());
      assertEquals("6 calls, 0 unexpected, 1 failed", serving.message("stopped:"));
      assertTrue(serving.out().contains("  failed: The request violates the API description"));
    }
    Files.copy(EXAMPLES.resolve("stubs/berths.openapi.yaml"), berths, REPLACE_EXISTING);
    try (Run.Going serving = serve(berths.toString())) {
      String said = serving.message("serving at");
      assertTrue(said.contains(" as https://berths.example until"), said);
      assertEquals(201, send("POST", address(said) + "/v1/bookings", wish, token).statusCode());
    }
  }

  @Test
  void aDescriptionBesideStubsIsForItsOwnServersAlone() throws Exception {
    String berths = EXAMPLES.resolve("stubs/berths.openapi.yaml").toString();
    try (Run.Going serving = serve(HARBOUR, berths, "--for", "https://tides.example")) {
      String address = address(serving.message("serving at"));

      assertContains("04:10", curl(address + TIDES.substring("tides.example".length())));
      assertContains(
          "B-12",
          curl(
              "--proxy",
              address,
              "-H",
              "authorization: Bearer x",
              "http://berths.example/v1/bookings?day=2031-04-02"));
    }
  }

  private static void assertContains(String part, String whole) {
    assertTrue(whole.contains(part), whole);
  }

  @Test
  void aChangedFileIsReadAgainAndABrokenOneIsNot() throws Exception {
    Path stubs = folder.resolve("a.stubs.yaml");
    Files.writeString(stubs, "stubs: [{request: GET /a, answer: {text: one}}]");
    try (Run.Going serving = serve(stubs.toString())) {
      String address = address(serving.message("serving at"));
      assertEquals("one", send("GET", address + "/a", "").body());

      Files.writeString(stubs, "stubs: [{request: GET /a, answer: {text: second}}]");
      serving.message("reloaded:");
      assertEquals("second", send("GET", address + "/a", "").body());

      Files.writeString(stubs, "stubs: [{request: GET /a, answr: {text: third}}]");
      serving.message("reload failed");
      assertTrue(serving.message(stubs + ":1").contains("a stub needs an answer"));
      assertTrue(serving.message(stubs + ":1").contains("Did you mean \"answer\"?"));
      assertEquals("second", send("GET", address + "/a", "").body());
    }
  }

  /** Of the key of a certificate, as the browser wants it: no other certificate passes. */
  private static String fingerprint(Path certificate) throws Exception {
    try (InputStream in = Files.newInputStream(certificate)) {
      byte[] key =
          CertificateFactory.getInstance("X.509")
              .generateCertificate(in)
              .getPublicKey()
              .getEncoded();
      return Base64.getEncoder().encodeToString(MessageDigest.getInstance("SHA-256").digest(key));
    }
  }

  /** Returns a page as a browser shows it when it has nothing more to do. */
  private String shown(Path chromium, String url, String... more) throws Exception {
    Path page = folder.resolve("page.html");
    List<String> command =
        new ArrayList<>(
            List.of(
                chromium.toString(),
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--user-data-dir=" + folder.resolve("browser"),
                "--virtual-time-budget=10000",
                "--dump-dom"));
    command.addAll(List.of(more));
    command.add(url);
    Process browser =
        new ProcessBuilder(command)
            .redirectOutput(page.toFile())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    assertTrue(browser.waitFor(60, TimeUnit.SECONDS), "the browser does not end");
    return Files.readString(page);
  }

  /** Its origin is that of another port. */
  @Test
  void aPageOfAnotherOriginMayCall() throws Exception {
    Path chromium = Path.of("/usr/bin/chromium");
    if (!Files.exists(chromium)) {
      return;
    }
    Path tides = folder.resolve("tides.stubs.yaml");
    Files.writeString(
        tides,
        """
        stubs:
          - request: PUT /tides
            headers: { x-desk: "7" }
            answer: { json: { high: "04:10" }, headers: { x-station: Marrow Bay } }
        """);
    try (Run.Going api = serve(tides.toString(), "--cors")) {
      String at = address(api.message("serving at"));
      Path front = folder.resolve("front.stubs.yaml");
      Files.writeString(
          front,
          """
          stubs:
            - request: GET /
              answer:
                html: >-
                  <p id=tide>waiting</p><p id=why>waiting</p><script>
                  const asked = { method: "PUT", credentials: "include",
                    headers: { "x-desk": "7", "content-type": "application/json" }, body: "{}" };
                  fetch("AT/tides", asked).then(async r => tide.textContent =
                    (await r.json()).high + " at " + r.headers.get("x-station"));
                  fetch("AT/other", asked).then(async r => why.textContent =
                    r.status + " " + (await r.text()).slice(0, 20));</script>
          """
              .replace("AT", at));
      try (Run.Going pages = serve(front.toString())) {
        String page = shown(chromium, address(pages.message("serving at")) + "/");

        assertTrue(page.contains("04:10 at Marrow Bay"), page);
        assertTrue(page.contains("501 Unexpected call: PUT"), page);
      }
    }
  }

  @Test
  void aPageInABrowserIsAnsweredThroughTheProxyByHttps() throws Exception {
    Path chromium = Path.of("/usr/bin/chromium");
    if (!Files.exists(chromium)) {
      return;
    }
    Path stubs = folder.resolve("page.stubs.yaml");
    Files.writeString(
        stubs,
        """
        stubs:
          - request: GET https://desk.example/
            answer:
              html: >-
                <p id=tide>waiting</p><script>
                fetch("https://desk.example/tides").then(r => r.json())
                .then(t => tide.textContent = "high at " + t.high)</script>
          - request: GET https://desk.example/tides
            answer: { json: { high: "04:10" } }
        """);
    try (Run.Going serving = serve(stubs.toString())) {
      String address = address(serving.message("serving at"));

      String page =
          shown(
              chromium,
              "https://desk.example/",
              "--proxy-server=" + address,
              "--ignore-certificate-errors-spki-list=" + fingerprint(folder.resolve("ca.pem")));

      assertTrue(page.contains("high at 04:10"), page);
      assertFalse(serving.out().isEmpty());
      assertTrue(serving.out().contains("GET https://desk.example/tides  ->  200"), serving.out());
    }
  }
}
