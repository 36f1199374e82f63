// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import static dev.cachette.Factories.connectionReset;
import static dev.cachette.Factories.json;
import static dev.cachette.Factories.text;
import static dev.cachette.Factories.unknownHost;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.answer.Gate;
import dev.cachette.cassette.CassetteSettings;
import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;

/** Test runs of the harbour, each in a JVM of its own. */
final class HarbourRun {

  private static final String BOOKINGS = "https://berths.example/v1/bookings";
  private static final String TIDES = "https://tides.example/v1/tides";

  /** A secret that no file may have. */
  static final String SECRET = "high-water-at-midnight";

  /** A name that would be markup, if it were not taken as text. */
  static final String HOSTILE = "</script><img src=x onerror=\"document.title='taken'\">";

  private HarbourRun() {}

  /** Runs one of the runs; its folder for further files is second. */
  public static void main(String[] arguments) throws Exception {
    try (Cachette net = Cachette.open()) {
      switch (arguments[0]) {
        case "arrival" -> arrival(net, Path.of(arguments[1]));
        case "crash" -> crash(net);
        case "many" -> many(net);
        case "lost" -> lost(net);
        case "tides" -> test(net, "TidesTest", "reads", () -> callTides(net, "04:10"));
        default -> throw new IllegalArgumentException(arguments[0]);
      }
    } catch (AssertionError reported) {
      // It is in the report.
    }
  }

  private static void arrival(Cachette net, Path folder) throws Exception {
    net.stub("GET https://vessels.example/v1/vessels").named("vessels").answer(json("[]"));
    test(net, "BerthDeskTest", "repeatsABooking", () -> repeats(net));
    test(net, "BerthDeskTest", "waitsForTheGate", () -> waits(net));
    test(net, "BerthDeskTest", "forgetsAStub", () -> send("GET", BOOKINGS + "?berth=B-9"));
    test(
        net,
        "BerthDeskTest",
        "findsTheBerthTaken",
        () -> net.markFailed(new AssertionError("the berth is taken")));
    test(net, "FaultsTest", "meetsFaults", () -> faults(net));
    test(net, "ContractTest", "bookAsDescribed", () -> described(net, folder));
    test(net, "CassetteTest", "replays", () -> replays(net, folder));
    test(net, "SecretsTest", "signsIn", () -> secrets(net));
    test(net, "HostileTest", "isText", () -> hostile(net));
    test(net, "StubsTest", "declaresTooMuch", () -> stubs(net));
    swept(net, "1/UNKNOWN_HOST/", "unknown host", "failed as allowed");
    swept(net, "1/NULL_MEMBER/$.berth", "null member", "failed", HOSTILE);
    swept(net, "1/NULL_MEMBER/$.berth", "null member", "failed", HOSTILE);
    swept(net, "1/NULL_MEMBER/$.from", "null member", "recovered");
  }

  private static void swept(
      Cachette net, String id, String fault, String outcome, String... findings) {
    CachetteInternals.swept(
        net,
        Map.of(
            "sweep",
            "the arrival",
            "id",
            id,
            "number",
            1,
            "call",
            "POST " + BOOKINGS,
            "fault",
            fault,
            "detail",
            id.split("/", 3)[2],
            "outcome",
            outcome,
            "repeats",
            outcome.equals("recovered") ? 1 : 0,
            "findings",
            List.of(findings)));
  }

  private static void repeats(Cachette net) throws IOException {
    net.stub("POST " + BOOKINGS)
        .named("book a berth")
        .answer(text("later").status(503), json(Map.of("berth", "B-4")).status(201), text("full"));
    send("POST", BOOKINGS);
    send("POST", BOOKINGS);
  }

  private static void waits(Cachette net) {
    Gate gate = new Gate();
    net.stub("GET " + TIDES).answer(json("{}").heldBy(gate));
    HttpClient client = HttpClient.newHttpClient();
    List<CompletableFuture<?>> calls =
        List.of(
            client.sendAsync(get(TIDES), BodyHandlers.ofString()),
            client.sendAsync(get(TIDES), BodyHandlers.ofString()));
    net.calls().awaitArrival(2, Duration.ofSeconds(10));
    gate.open();
    calls.forEach(CompletableFuture::join);
  }

  private static void faults(Cachette net) {
    net.stub("GET https://customs.example/v1/forms").answer(connectionReset());
    net.stub("GET https://id.example/v1/keys").answer(unknownHost());
    fails("https://customs.example/v1/forms");
    fails("https://id.example/v1/keys");
  }

  private static void described(Cachette net, Path folder) throws IOException {
    net.describedBy("https://berths.example", folder.resolve("berths.openapi.yaml").toString());
    net.stub("POST " + BOOKINGS).answer(json(Map.of("berth", "B-4")).status(201));
    send("POST", BOOKINGS);
  }

  private static void replays(Cachette net, Path folder) throws IOException {
    net.cassette(
        folder.resolve("tides.har"), CassetteSettings.defaults().staleAfter(Duration.ofDays(1)));
    send("GET", TIDES);
  }

  private static void secrets(Cachette net) throws IOException {
    net.stub("POST https://id.example/token?api_key=" + SECRET)
        .answer(json(Map.of("access_token", SECRET, "token_type", "Bearer")));
    send("POST", "https://id.example/token?api_key=" + SECRET, "authorization", "Bearer " + SECRET);
  }

  private static void hostile(Cachette net) throws IOException {
    net.stub("POST https://log.example/entries")
        .named(HOSTILE)
        .answer(text("<!--" + HOSTILE).header("x-note", HOSTILE));
    send("POST", "https://log.example/entries", "x-note", HOSTILE);
  }

  private static void stubs(Cachette net) throws IOException {
    net.stub("GET " + TIDES).named("tides, first").answer(json("{}"));
    net.stub("GET " + TIDES).named("tides, again").answer(json("{}"));
    net.stub("GET https://charts.example/v1/charts").named("charts").answer(json("{}"));
    send("GET", TIDES);
  }

  private static void crash(Cachette net) throws Exception {
    test(net, "TidesTest", "passes", () -> callTides(net, "04:10"));
    test(
        net,
        "TidesTest",
        "crashes",
        () -> {
          callTides(net, "16:35");
          // What a call leaves is written in a moment, by another thread.
          Path report = Path.of(System.getProperty("cachette.report"));
          Path part = new RunFolder(report).parts().get(0);
          while (!Files.readString(part).contains("16:35")) {
            Thread.onSpinWait();
          }
          Runtime.getRuntime().halt(9);
        });
  }

  private static void many(Cachette net) throws Exception {
    for (int test = 0; test < 1_000; test++) {
      int number = test;
      test(
          net,
          "ManyTest",
          "number" + test,
          () -> {
            net.stub("POST " + BOOKINGS).answer(text("berth " + number + " ".repeat(3_000)));
            for (int call = 0; call < 5; call++) {
              send("POST", BOOKINGS + "?call=" + call);
            }
          });
    }
  }

  /** Thousands of calls that nothing answers, each with an explanation. */
  private static void lost(Cachette net) throws Exception {
    for (int test = 0; test < 50; test++) {
      test(
          net,
          "LostTest",
          "number" + test,
          () -> {
            for (int call = 0; call < 100; call++) {
              send("GET", BOOKINGS + "/" + call);
            }
          });
    }
  }

  private static void callTides(Cachette net, String high) throws IOException {
    net.stub("GET " + TIDES).named("tides").answer(json(Map.of("high", high)));
    send("GET", TIDES);
  }

  /** The body of a test. */
  private interface Step {
    void run() throws Exception;
  }

  private static void test(Cachette net, String className, String name, Step step)
      throws Exception {
    try (Cachette.Scope scope = net.scope("dev.harbour." + className, name)) {
      step.run();
    } catch (AssertionError failed) {
      // It is in the report.
    }
  }

  private static HttpRequest get(String url) {
    return HttpRequest.newBuilder(URI.create(url)).build();
  }

  private static void fails(String url) {
    try {
      send("GET", url);
      throw new IllegalStateException("no fault from " + url);
    } catch (IOException fault) {
      // As wanted.
    }
  }

  private static void send(String method, String url, String... header) throws IOException {
    HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
    connection.setRequestMethod(method);
    if (header.length > 0) {
      connection.setRequestProperty(header[0], header[1]);
    }
    if (method.equals("POST")) {
      connection.setRequestProperty("content-type", "application/json");
      connection.setDoOutput(true);
      connection.getOutputStream().write("{\"berth\":\"B-4\"}".getBytes(StandardCharsets.UTF_8));
    }
    int status = connection.getResponseCode();
    try (InputStream in =
        status < 400 ? connection.getInputStream() : connection.getErrorStream()) {
      in.readAllBytes();
    }
  }
}
