// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Faults;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.clients.HarbourClient.Reply;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Calls each client with each fault, for the table in docs/faults.md. The exception may differ from
 * one release of a client or of Java to the next, so the page is only written on demand; that the
 * fault reaches the caller is asserted.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class FaultTableTest {

  private static final Path PAGE = Path.of("../docs/faults.md");
  private static final String BEGIN = "<!-- begin: found by FaultTableTest -->\n";
  private static final String END = "<!-- end -->";

  private static final ResponseAnswer TIDES = json("{\"high\":\"04:10\",\"low\":\"10:21\"}");
  private static final Duration NOTHING_COMES = Duration.ofMillis(700);

  private static final List<Row> CLIENTS =
      Stream.of(
              "JDK HttpClient",
              "HttpURLConnection",
              "Apache HttpClient 5, classic",
              "OkHttp 5",
              "Reactor Netty (NIO)",
              "Jetty 12 client",
              "Vert.x 5 web client (NIO)")
          .map(Row::named)
          .toList();

  private static final Map<String, Map<Row, String>> FOUND = new LinkedHashMap<>();
  private static int hosts;

  /** The effect of a fault on a call. */
  private enum Outcome {
    /** The caller sees a failure. */
    FAILS,
    /** The caller sees a response, in which something is wrong. */
    ANSWERS,
    /** It depends on the client. */
    EITHER
  }

  static Stream<Arguments> faults() {
    return Stream.concat(beforeARequest(), withAnAnswer())
        .map(fault -> arguments(fault.title(), fault));
  }

  private static Stream<Case> beforeARequest() {
    return Stream.of(
        of("unknownHost()", Faults.unknownHost(), Protocol.HTTP, Outcome.FAILS),
        of("connectionRefused()", Faults.connectionRefused(), Protocol.HTTP, Outcome.FAILS),
        of("connectTimeout()", Faults.connectTimeout(), Protocol.HTTP, Outcome.FAILS),
        of("expiredCertificate()", Faults.expiredCertificate(), Protocol.HTTPS, Outcome.FAILS),
        of(
            "notYetValidCertificate()",
            Faults.notYetValidCertificate(),
            Protocol.HTTPS,
            Outcome.FAILS),
        of("wrongHostCertificate()", Faults.wrongHostCertificate(), Protocol.HTTPS, Outcome.FAILS),
        of("untrustedAuthority()", Faults.untrustedAuthority(), Protocol.HTTPS, Outcome.FAILS),
        of("handshakeRefused()", Faults.handshakeRefused(), Protocol.HTTPS, Outcome.FAILS),
        of("outdatedTls()", Faults.outdatedTls(), Protocol.HTTPS, Outcome.FAILS));
  }

  private static Stream<Case> withAnAnswer() {
    return Stream.of(
        of("connectionReset()", Faults.connectionReset(), Protocol.HTTPS, Outcome.FAILS),
        of("connectionClosed()", Faults.connectionClosed(), Protocol.HTTP, Outcome.FAILS),
        of("noResponse()", Faults.noResponse(), Protocol.HTTP, Outcome.FAILS),
        of("resetMidBody(...)", Faults.resetMidBody(TIDES), Protocol.HTTP, Outcome.FAILS),
        of("resetAfter(...)", Faults.resetAfter(TIDES), Protocol.HTTP, Outcome.EITHER),
        of("truncated(...)", Faults.truncated(TIDES), Protocol.HTTP, Outcome.EITHER),
        of("truncated(...)", Faults.truncated(TIDES), Protocol.HTTP_2, Outcome.EITHER),
        of("malformedChunks(...)", Faults.malformedChunks(TIDES), Protocol.HTTP, Outcome.FAILS),
        of("streamReset()", Faults.streamReset(), Protocol.HTTP_2, Outcome.FAILS),
        of("goAway()", Faults.goAway(), Protocol.HTTP_2, Outcome.FAILS),
        of("notHttp()", Faults.notHttp(), Protocol.HTTP, Outcome.EITHER),
        of("headersTooLarge()", Faults.headersTooLarge(), Protocol.HTTP, Outcome.EITHER),
        of("wrongContentType(...)", Faults.wrongContentType(TIDES), Protocol.HTTP, Outcome.ANSWERS),
        of("invalidJson(...)", Faults.invalidJson(TIDES), Protocol.HTTP, Outcome.ANSWERS),
        of("badGzip(...)", Faults.badGzip(TIDES), Protocol.HTTP, Outcome.EITHER),
        of("wrongCharset(...)", Faults.wrongCharset(TIDES), Protocol.HTTP, Outcome.ANSWERS));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("faults")
  void reachesTheCaller(String title, Case fault) throws Exception {
    List<Attempt> attempts = new ArrayList<>();
    for (Row row : CLIENTS) {
      if (row.protocols().contains(fault.protocol)) {
        attempts.add(new Attempt(row, fault.protocol));
      }
    }
    Cachette net =
        Cachette.open(
            Settings.defaults()
                .unexpectedCalls(UnexpectedCalls.WARN)
                .unusedStubs(UnusedStubs.IGNORE));
    try {
      try (net) {
        attempts.forEach(each -> net.stub("GET " + each.url).answer(fault.answer));
        // Side by side, as some wait.
        attempts.forEach(Attempt::start);
        for (Attempt each : attempts) {
          each.awaitOutcome();
        }
      }
      // What still waits ends with the test.
      for (Attempt each : attempts) {
        each.awaitEnd();
      }
    } finally {
      for (Attempt each : attempts) {
        each.client.close();
      }
    }

    Map<Row, String> found = new LinkedHashMap<>();
    attempts.forEach(each -> found.put(each.row, each.found));
    FOUND.put(title, found);
    if (fault.outcome != Outcome.EITHER) {
      for (Attempt each : attempts) {
        assertEquals(
            fault.outcome == Outcome.FAILS,
            each.reply.isCompletedExceptionally(),
            each.row + ": " + each.found);
      }
    }
  }

  /** One call by one client. */
  private static final class Attempt {

    private final Row row;
    private final String url;
    private final HarbourClient client;
    private final CompletableFuture<Reply> reply = new CompletableFuture<>();
    private String found = "";

    Attempt(Row row, Protocol protocol) throws Exception {
      this.row = row;
      // Another host each time, as some clients keep connections for the whole JVM.
      this.url = protocol.scheme + "://t" + ++hosts + ".tides.example/v1";
      this.client = row.create(protocol);
    }

    void start() {
      Thread caller = new Thread(this::call, "caller");
      caller.setDaemon(true);
      caller.start();
    }

    private void call() {
      try {
        reply.complete(client.get(url));
      } catch (Throwable failed) {
        reply.completeExceptionally(failed);
      }
    }

    void awaitOutcome() throws InterruptedException {
      found = outcome(reply);
    }

    void awaitEnd() throws Exception {
      found = found.isEmpty() ? waited(reply) : found;
    }
  }

  private static String waited(CompletableFuture<Reply> reply) throws Exception {
    try {
      reply.exceptionally(failed -> null).get(6, TimeUnit.SECONDS);
      return "waits for its own timeout";
    } catch (TimeoutException late) {
      return "waits, even when its connection is gone";
    }
  }

  /** Empty if nothing comes. */
  private static String outcome(CompletableFuture<Reply> reply) throws InterruptedException {
    try {
      Reply got = reply.get(NOTHING_COMES.toMillis(), TimeUnit.MILLISECONDS);
      return got.body().equals(TIDES.response().text())
          ? got.status() + ", unaffected"
          : got.status() + ", " + got.bytes().length + " bytes";
    } catch (ExecutionException failed) {
      return names(failed.getCause());
    } catch (TimeoutException nothing) {
      return "";
    }
  }

  /** Returns the exception that the caller sees, and the first cause where that says more. */
  private static String names(Throwable thrown) {
    Throwable seen = thrown instanceof ExecutionException ? thrown.getCause() : thrown;
    String first = Findings.rootOf(seen).getClass().getSimpleName();
    String top = seen.getClass().getSimpleName();
    return top.equals(first) ? top : top + ": " + first;
  }

  @AfterAll
  static void table() throws IOException {
    String page = Files.readString(PAGE);
    for (String title : FOUND.keySet()) {
      assertTrue(
          page.contains("| `" + title) || Boolean.getBoolean("guide.refresh"),
          title + " is missing in docs/faults.md; run with -Dguide.refresh=true");
    }
    if (Boolean.getBoolean("guide.refresh")) {
      int begin = page.indexOf(BEGIN) + BEGIN.length();
      Files.writeString(
          PAGE, page.substring(0, begin) + written() + page.substring(page.indexOf(END, begin)));
    }
  }

  private static String written() {
    String head =
        "| fault | " + CLIENTS.stream().map(Row::name).collect(Collectors.joining(" | ")) + " |\n";
    String rule = "|" + " --- |".repeat(CLIENTS.size() + 1) + "\n";
    String lines =
        FOUND.entrySet().stream()
            .map(
                found ->
                    "| `"
                        + found.getKey()
                        + " | "
                        + CLIENTS.stream()
                            .map(row -> found.getValue().getOrDefault(row, "-"))
                            .collect(Collectors.joining(" | "))
                        + " |\n")
            .collect(Collectors.joining());
    return "\n" + head + rule + lines + "\n";
  }

  private static Case of(String name, Answer answer, Protocol protocol, Outcome outcome) {
    return new Case(name, answer, protocol, outcome);
  }

  /** One line of the table. */
  private record Case(String name, Answer answer, Protocol protocol, Outcome outcome) {

    String title() {
      return name + "` over " + protocol.title;
    }
  }
}
