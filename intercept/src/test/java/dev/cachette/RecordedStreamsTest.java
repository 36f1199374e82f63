// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.realService;
import static dev.cachette.cassette.RecordingMode.CREATE;
import static dev.cachette.cassette.RecordingMode.REPLAY;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.RecordingMode;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.HttpURLConnection;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Responses that are passed on while they arrive, and recorded with their timing. */
@Timeout(60)
class RecordedStreamsTest {

  private static final String ARRIVALS = "http://berths.example/v1/arrivals";

  /** Ends the stream of the service. */
  private static final String END = "";

  /** Breaks it off. */
  private static final String BREAK = "!";

  /** Lets it pause. */
  private static final String PAUSE = "...";

  private static final long PAUSE_MILLIS = 120;

  @TempDir Path folder;

  private final BlockingQueue<String> says = new LinkedBlockingQueue<>();
  private final CountDownLatch left = new CountDownLatch(1);
  private HttpServer service;

  @BeforeEach
  void open() throws IOException {
    service = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    service.createContext("/", this::stream);
    service.setExecutor(Executors.newCachedThreadPool());
    service.start();
  }

  @AfterEach
  void close() {
    says.add(END);
    service.stop(0);
  }

  private void stream(HttpExchange exchange) throws IOException {
    exchange.getResponseHeaders().set("content-type", "text/event-stream");
    String length = exchange.getRequestHeaders().getFirst("x-length");
    exchange.sendResponseHeaders(200, length == null ? 0 : Long.parseLong(length));
    OutputStream out = exchange.getResponseBody();
    out.flush();
    try {
      for (String event = says.take(); !event.equals(END); event = says.take()) {
        if (event.equals(BREAK)) {
          exchange.getHttpContext().getServer().stop(0);
          return;
        }
        if (event.equals(PAUSE)) {
          // The service takes its time; nothing waits for the end of it.
          left.await(PAUSE_MILLIS, TimeUnit.MILLISECONDS);
          continue;
        }
        out.write(event.getBytes(StandardCharsets.UTF_8));
        out.flush();
      }
      out.close();
    } catch (IOException clientLeft) {
      left.countDown();
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
  }

  private Cachette net(RecordingMode recording) {
    return Cachette.open(
        Settings.defaults()
            .cassetteFolder(folder)
            .cassettes(
                CassetteSettings.defaults().mode(recording).recordingInCi().withRecordedTiming())
            .realServiceAt(
                "http://berths.example", "http://127.0.0.1:" + service.getAddress().getPort()));
  }

  private static HttpURLConnection connection() throws IOException {
    HttpURLConnection connection =
        (HttpURLConnection) URI.create(ARRIVALS).toURL().openConnection();
    connection.setReadTimeout(20_000);
    return connection;
  }

  private static BufferedReader reader(HttpURLConnection connection) throws IOException {
    return new BufferedReader(
        new InputStreamReader(connection.getInputStream(), StandardCharsets.UTF_8));
  }

  @Test
  void eachEventReachesTheClientWhenItIsSentAndIsReplayedWithItsTiming() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("arrivals");
      BufferedReader events = reader(connection());
      says.add("data: Kittiwake\n\n");
      assertEquals("data: Kittiwake", events.readLine());
      says.add(PAUSE);
      says.add("data: Fulmar\n\n");
      assertEquals("", events.readLine());
      assertEquals("data: Fulmar", events.readLine());
      says.add(END);
      assertEquals("", events.readLine());
      assertEquals(null, events.readLine());
      net.calls().await(1, Duration.ofSeconds(5));
      assertEquals("data: Kittiwake\n\ndata: Fulmar\n\n", net.calls().only().response().text());
    }
    try (Cachette net = net(REPLAY)) {
      ActiveCassette cassette = net.cassette("arrivals");
      Exchange exchange = cassette.recorded().exchanges().get(0);
      assertEquals(2, exchange.pieces().size());
      assertEquals("data: Kittiwake\n\n".length(), exchange.pieces().get(0).size());
      Duration between = exchange.pieces().get(1).at().minus(exchange.pieces().get(0).at());
      assertTrue(between.toMillis() >= 100, between::toString);
      long before = System.nanoTime();
      BufferedReader events = reader(connection());
      assertEquals("data: Kittiwake", events.readLine());
      assertEquals("", events.readLine());
      assertEquals("data: Fulmar", events.readLine());
      // The pause is real: a lower bound only, so that no busy machine can fail this.
      assertTrue(System.nanoTime() - before >= between.toNanos());
    }
  }

  @Test
  void anEndlessStreamIsRecordedUpToWhereItsClientLeaves() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("arrivals");
      HttpURLConnection connection = connection();
      BufferedReader events = reader(connection);
      says.add("data: Kittiwake\n\n");
      assertEquals("data: Kittiwake", events.readLine());
      connection.disconnect();
      while (!left.await(10, TimeUnit.MILLISECONDS)) {
        says.add("data: Fulmar\n\n");
      }
    }
    try (Cachette net = net(REPLAY)) {
      net.cassette("arrivals");
      assertEquals("data: Kittiwake", reader(connection()).readLine());
    }
  }

  @Test
  void aStreamThatStillRunsAtTheEndOfItsTestIsRecorded() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("arrivals");
      says.add("data: Kittiwake\n\n");
      assertEquals("data: Kittiwake", reader(connection()).readLine());
    }
    try (Cachette net = net(REPLAY)) {
      net.cassette("arrivals");
      assertEquals("data: Kittiwake", reader(connection()).readLine());
    }
  }

  @Test
  void aStreamThatIsBrokenOffBreaksForTheClient() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("arrivals");
      BufferedReader events = reader(connection());
      says.add("data: Kittiwake\n\n");
      assertEquals("data: Kittiwake", events.readLine());
      says.add(BREAK);
      assertEquals("", events.readLine());
      assertThrows(IOException.class, events::readLine);
    }
  }

  @Test
  void aSlowBodyOfKnownLengthKeepsItsLength() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.stub("GET " + ARRIVALS).answer(realService());
      HttpURLConnection connection = connection();
      connection.setRequestProperty("x-length", "10");
      says.add("12345");
      InputStream in = connection.getInputStream();
      assertEquals('1', in.read());
      assertEquals("10", connection.getHeaderField("content-length"));
      says.add("67890");
      says.add(END);
      assertEquals("234567890", new String(in.readAllBytes(), StandardCharsets.UTF_8));
      assertFalse(net.calls().only().response().headers().has("transfer-encoding"));
    }
  }
}
