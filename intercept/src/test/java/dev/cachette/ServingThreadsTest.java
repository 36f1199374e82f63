// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Faults.noResponse;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Answer;
import java.io.IOException;
import java.net.Socket;
import java.net.SocketException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** A Cachette that many call at once may serve them by several threads. */
class ServingThreadsTest {

  private static final int THREADS = 4;
  private static final int CALLERS = 16;
  private static final int CALLS_EACH = 50;

  private static final Settings SETTINGS =
      Settings.defaults().withoutInterception().servingThreads(THREADS);

  @Test
  void eachAnswerIsGivenToOneCallerAlone() throws Exception {
    ExecutorService callers = Executors.newFixedThreadPool(CALLERS);
    try (Cachette net = Cachette.open(SETTINGS)) {
      Stub berths =
          net.stub("POST /v1/bookings")
              .answer(
                  text("B-0"),
                  IntStream.range(1, CALLERS * CALLS_EACH)
                      .mapToObj(number -> text("B-" + number))
                      .toArray(Answer[]::new))
              .onceEach();
      URI bookings = URI.create(net.baseUrl() + "/v1/bookings");
      List<Callable<Set<String>>> all = new ArrayList<>();
      for (int caller = 0; caller < CALLERS; caller++) {
        all.add(() -> berthsOf(bookings));
      }

      Set<String> given = new HashSet<>();
      for (Future<Set<String>> caller : callers.invokeAll(all)) {
        given.addAll(caller.get());
      }

      assertEquals(CALLERS * CALLS_EACH, given.size());
      berths.calls().assertCount(CALLERS * CALLS_EACH);
      long serving =
          Thread.getAllStackTraces().keySet().stream()
              .filter(thread -> thread.getName().startsWith("cachette-wire"))
              .count();
      assertEquals(THREADS, serving);
    } finally {
      callers.shutdownNow();
    }
  }

  /** Returns what one caller gets, by a connection of its own. */
  private static Set<String> berthsOf(URI bookings) throws Exception {
    HttpClient client = HttpClient.newHttpClient();
    HttpRequest request =
        HttpRequest.newBuilder(bookings).POST(HttpRequest.BodyPublishers.ofString("{}")).build();
    Set<String> berths = new HashSet<>();
    for (int call = 0; call < CALLS_EACH; call++) {
      berths.add(client.send(request, BodyHandlers.ofString()).body());
    }
    return berths;
  }

  @Test
  void closingEndsTheCallsOfAllThreads() throws Exception {
    List<Socket> callers = new ArrayList<>();
    Set<Thread> before = wireThreads();
    try (Cachette net = Cachette.open(SETTINGS)) {
      net.stub("GET /v1/tides").answer(noResponse());
      URI address = URI.create(net.baseUrl());
      for (int caller = 0; caller < CALLERS; caller++) {
        Socket socket = new Socket(address.getHost(), address.getPort());
        socket.setSoTimeout(20_000);
        socket
            .getOutputStream()
            .write("GET /v1/tides HTTP/1.1\r\nhost: a\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
        callers.add(socket);
      }
      net.calls().awaitArrival(CALLERS, Duration.ofSeconds(30));
    }

    Set<Thread> after = wireThreads();
    after.removeAll(before);
    assertEquals(Set.of(), after);
    for (Socket caller : callers) {
      assertTrue(isEnded(caller), "the connection is still open");
    }
  }

  private static boolean isEnded(Socket caller) throws IOException {
    try (caller) {
      return caller.getInputStream().read() < 0;
    } catch (SocketException reset) {
      return true;
    }
  }

  private static Set<Thread> wireThreads() {
    Set<Thread> threads = new HashSet<>(Thread.getAllStackTraces().keySet());
    threads.removeIf(thread -> !thread.getName().equals("cachette-wire"));
    return threads;
  }

  @Test
  void aNumberThatIsNoneIsRefused() {
    String said =
        assertThrows(IllegalArgumentException.class, () -> Settings.defaults().servingThreads(0))
            .getMessage();

    assertEquals("The setting servingThreads must be positive, not 0.", said);
  }
}
