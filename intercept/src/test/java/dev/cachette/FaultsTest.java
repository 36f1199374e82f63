// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Faults.badGzip;
import static dev.cachette.answer.Faults.connectTimeout;
import static dev.cachette.answer.Faults.connectionClosed;
import static dev.cachette.answer.Faults.connectionRefused;
import static dev.cachette.answer.Faults.connectionReset;
import static dev.cachette.answer.Faults.goAway;
import static dev.cachette.answer.Faults.headersTooLarge;
import static dev.cachette.answer.Faults.invalidJson;
import static dev.cachette.answer.Faults.malformedChunks;
import static dev.cachette.answer.Faults.noResponse;
import static dev.cachette.answer.Faults.notHttp;
import static dev.cachette.answer.Faults.resetAfter;
import static dev.cachette.answer.Faults.resetMidBody;
import static dev.cachette.answer.Faults.streamReset;
import static dev.cachette.answer.Faults.truncated;
import static dev.cachette.answer.Faults.unknownHost;
import static dev.cachette.answer.Faults.wrongCharset;
import static dev.cachette.answer.Faults.wrongContentType;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Fault;
import dev.cachette.answer.ResponseAnswer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.ConnectException;
import java.net.HttpURLConnection;
import java.net.InetSocketAddress;
import java.net.ProtocolException;
import java.net.Socket;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.api.function.Executable;
import org.opentest4j.AssertionFailedError;

/** Each fault as the JDK's own clients report it. */
class FaultsTest {

  private static final String NO_CONNECT_TIMEOUT = "Windows refuses the connection instead";

  private static final ResponseAnswer TIDES = json("{\"high\":\"04:10\"}");
  private static int tests;

  /**
   * Another host in each test: HttpURLConnection keeps its connections for the whole JVM, and where
   * one turns out to be dead it looks up and connects once more by itself.
   */
  private final String host = "tides" + ++tests + ".example";

  private final String http = "http://" + host + "/v1";
  private final String https = "https://" + host + "/v1";
  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open();
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void aHostIsUnknownAndThenKnown() throws Exception {
    net.stub("GET " + http).answer(unknownHost(), TIDES);

    assertThrows(UnknownHostException.class, () -> Calling.plain(http));
    assertEquals("{\"high\":\"04:10\"}", Calling.plain(http));
    net.calls().assertCount(1);
  }

  @Test
  void aConnectionIsRefusedAndThenNot() throws Exception {
    net.stub("GET " + https).answer(connectionRefused(), TIDES);

    assertThrows(ConnectException.class, () -> Calling.plain(https));
    assertEquals("{\"high\":\"04:10\"}", Calling.plain(https));
  }

  @Test
  void faultComesInItsTurnThoughAConnectionIsKept() throws Exception {
    net.stub("GET " + http).answer(TIDES, connectionRefused(), TIDES);

    assertEquals("{\"high\":\"04:10\"}", Calling.plain(http));
    assertThrows(ConnectException.class, () -> Calling.plain(http));
    assertEquals("{\"high\":\"04:10\"}", Calling.plain(http));
  }

  @Test
  void faultComesInItsTurnThoughAnotherConnectionIsKept() throws Exception {
    net.stub("POST " + http).answer(TIDES, TIDES, connectionRefused(), TIDES);
    HttpRequest post =
        HttpRequest.newBuilder(URI.create(http))
            .POST(HttpRequest.BodyPublishers.ofString("{}"))
            .build();
    HttpClient one = HttpClient.newHttpClient();
    HttpClient other = HttpClient.newHttpClient();

    assertEquals(200, Calling.send(one, post).statusCode());
    assertEquals(200, Calling.send(other, post).statusCode());
    assertThrows(ConnectException.class, () -> Calling.send(one, post));
    assertEquals(200, Calling.send(other, post).statusCode());
    net.calls().attempts("http://" + host).assertCount(1);
  }

  @Test
  void anotherTestsConnectionDoesNotHideTheFault() throws Exception {
    net.stub("GET " + http).answer(TIDES);
    assertEquals("{\"high\":\"04:10\"}", Calling.plain(http));

    net.stub("GET " + http).answer(connectionRefused());

    assertThrows(ConnectException.class, () -> Calling.plain(http));
  }

  @DisabledOnOs(value = OS.WINDOWS, disabledReason = NO_CONNECT_TIMEOUT)
  @Test
  void theClientsOwnConnectTimeoutDecides() throws Exception {
    net.stub("GET " + http).answer(connectTimeout());

    HttpURLConnection connection = connection(http);
    connection.setConnectTimeout(100);

    assertThrows(SocketTimeoutException.class, connection::getResponseCode);
  }

  @DisabledOnOs(value = OS.WINDOWS, disabledReason = NO_CONNECT_TIMEOUT)
  @Test
  void pendingConnectsEndWithTheTest() throws Exception {
    Cachette.Scope test = net.scope();
    net.stub("GET " + http).answer(connectTimeout());
    Connecting attempt = new Connecting(() -> new Socket(host, 80).close());

    test.close();

    assertTrue(attempt.failure.join() instanceof IOException, attempt.failure.join()::toString);
  }

  @DisabledOnOs(value = OS.WINDOWS, disabledReason = NO_CONNECT_TIMEOUT)
  @Test
  void aSocketOfAChannelTimesOutByTheClock() throws Exception {
    net.stub("GET " + http).answer(connectTimeout());
    net.clock().advance(Duration.ofMinutes(20));
    Connecting attempt =
        new Connecting(
            () -> {
              try (SocketChannel channel = SocketChannel.open()) {
                channel.socket().connect(new InetSocketAddress(host, 80), 600_000);
              }
            });

    net.clock().advance(Duration.ofMinutes(-1));
    net.clock().advance(Duration.ofMinutes(9));
    assertTrue(attempt.isWaiting());
    net.clock().set(Instant.parse("9999-01-01T00:00:00Z"));

    assertEquals(
        "java.net.SocketTimeoutException: Connect timed out", attempt.failure.join().toString());
  }

  @DisabledOnOs(value = OS.WINDOWS, disabledReason = NO_CONNECT_TIMEOUT)
  @Test
  void aSocketThatIsClosedWhileItConnectsIsNotTimedOut() throws Exception {
    net.stub("GET " + http).answer(connectTimeout());
    Socket socket = new Socket();
    Connecting attempt =
        new Connecting(() -> socket.connect(new InetSocketAddress(host, 80), 600_000));

    net.clock().advance(Duration.ofMinutes(9));
    socket.close();

    assertEquals("java.net.SocketException: Socket closed", attempt.failure.join().toString());
  }

  /** An attempt to connect, on a thread of its own, which waits when this is made. */
  private static final class Connecting {

    /** Native, or with a timeout. */
    private static final Set<String> METHODS =
        Set.of("connect0", "connect", "timedFinishConnect", "finishTimedConnect");

    private final CompletableFuture<Throwable> failure = new CompletableFuture<>();
    private final Thread thread;

    Connecting(Executable attempt) {
      thread =
          new Thread(
              () -> {
                try {
                  attempt.execute();
                  failure.complete(null);
                } catch (Throwable failed) {
                  failure.complete(failed);
                }
              });
      thread.start();
      while (!isWaiting()) {
        Thread.onSpinWait();
      }
    }

    boolean isWaiting() {
      return Stream.of(thread.getStackTrace())
          .anyMatch(
              frame ->
                  frame.getClassName().startsWith("sun.nio.ch.")
                      && METHODS.contains(frame.getMethodName()));
    }
  }

  @Test
  void theConnectionEndsWhereAnAnswerWasDue() {
    net.stub("GET " + http).answer(connectionReset());
    net.stub("GET " + https).answer(connectionReset());
    net.stub("GET http://berths.example/v1").answer(connectionClosed());

    assertEquals("Connection reset", failure(http).getMessage());
    assertTrue(failure(https) instanceof SocketException);
    assertTrue(failure("http://berths.example/v1").getMessage().contains("end of file"));
  }

  @Test
  void noResponseLastsUntilTheClientGivesUp() {
    net.stub("GET " + https).answer(noResponse());
    HttpRequest impatient =
        HttpRequest.newBuilder(URI.create(https)).timeout(Duration.ofMillis(200)).build();

    assertThrows(
        HttpTimeoutException.class, () -> Calling.send(HttpClient.newHttpClient(), impatient));
    Fault fault = net.calls().only().fault().orElseThrow();
    assertEquals(Fault.Kind.NO_RESPONSE, fault.kind());
    assertThrows(IllegalStateException.class, () -> net.calls().only().response());
  }

  @Test
  void noResponseEndsWithTheTest() {
    Cachette.Scope test = net.scope();
    net.stub("GET " + https).answer(noResponse());
    var running =
        HttpClient.newHttpClient()
            .sendAsync(
                HttpRequest.newBuilder(URI.create(https)).build(),
                HttpResponse.BodyHandlers.ofString());
    net.calls().awaitArrival(1, Duration.ofSeconds(20));

    test.close();

    assertThrows(Exception.class, running::join);
  }

  @Test
  void theBodyEndsTooSoon() throws Exception {
    for (HttpClient.Version version : HttpClient.Version.values()) {
      String url = "https://" + version.name().charAt(5) + "." + host + "/v1";
      HttpClient client = HttpClient.newBuilder().version(version).build();
      HttpRequest request = HttpRequest.newBuilder(URI.create(url)).build();
      net.stub("GET " + url).answer(malformedChunks(TIDES), resetMidBody(TIDES), truncated(TIDES));

      assertThrows(IOException.class, () -> Calling.send(client, request));
      assertThrows(IOException.class, () -> Calling.send(client, request));
      if (version == HttpClient.Version.HTTP_1_1) {
        assertThrows(IOException.class, () -> Calling.send(client, request));
      } else {
        // By HTTP/2, this client does not compare what it gets with the content length.
        assertEquals("{\"high\":", Calling.send(client, request).body().strip());
      }
    }
  }

  @Test
  void aShortBodyIsSentAsFarAsItGoes() throws Exception {
    net.stub("GET " + http).answer(truncated(text("high water"), 4));

    String answer = Calling.raw(host, 80, "GET /v1 HTTP/1.1\r\nHost: t\r\n\r\n");

    assertTrue(answer.contains("content-length: 10\r\n"), answer);
    assertTrue(answer.endsWith("\r\n\r\nhigh"), answer);
  }

  @Test
  void chunksAreBrokenInTheMiddle() throws Exception {
    net.stub("GET " + http).answer(malformedChunks(text("high water")));

    String answer = Calling.raw(host, 80, "GET /v1 HTTP/1.1\r\nHost: t\r\n\r\n");

    assertTrue(answer.endsWith("\r\n\r\n5\r\nhigh \r\nno chunk\r\n"), answer);
  }

  @Test
  void aResetBehindTheAnswerComesTooLateToHurtIt() throws Exception {
    net.stub("GET " + http).answer(resetAfter(TIDES), TIDES);
    HttpClient client = HttpClient.newHttpClient();
    HttpRequest request = HttpRequest.newBuilder(URI.create(http)).build();

    assertEquals("{\"high\":\"04:10\"}", Calling.send(client, request).body());
    assertEquals("{\"high\":\"04:10\"}", Calling.send(client, request).body());
  }

  @Test
  void streamsOfHttp2End() throws Exception {
    net.stub("POST " + https).answer(streamReset(), TIDES);
    net.stub("POST https://berths.example/v1").answer(goAway());
    HttpClient client = HttpClient.newHttpClient();

    var reset = assertThrows(IOException.class, () -> post(client, https));
    assertTrue(reset.getMessage().contains("Internal error"), reset::getMessage);
    assertEquals("{\"high\":\"04:10\"}", post(client, https));
    // Later releases of this client ask again some times by themselves.
    assertThrows(IOException.class, () -> post(client, "https://berths.example/v1"));
  }

  @Test
  void faultOfHttp2ForAnotherProtocolFailsTheTest() throws Exception {
    net.stub("GET " + http).answer(streamReset());

    assertEquals(500, Calling.get(http).statusCode());

    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(failure.getMessage().contains("\"stream reset\""), failure::getMessage);
    assertTrue(failure.getMessage().contains("came over HTTP/1.1"), failure::getMessage);
  }

  @Test
  void theResponseIsNotHttp() {
    net.stub("GET " + http).answer(notHttp());
    net.stub("GET " + https).answer(notHttp());

    assertThrows(ProtocolException.class, () -> Calling.get(http));
    assertThrows(IOException.class, () -> Calling.get(https));
  }

  @Test
  void headersAreTooLarge() {
    net.stub("GET " + http).answer(headersTooLarge());
    net.stub("GET " + https).answer(headersTooLarge());

    assertThrows(IOException.class, () -> Calling.get(http));
    assertThrows(IOException.class, () -> Calling.get(https));
  }

  @Test
  void theContentDiffersFromItsDeclaredType() throws Exception {
    net.stub("GET " + https)
        .answer(wrongContentType(TIDES), invalidJson(TIDES), badGzip(TIDES), wrongCharset(TIDES));

    HttpResponse<String> typed = Calling.get(https);
    assertEquals(
        "text/html; charset=utf-8", typed.headers().firstValue("content-type").orElseThrow());
    assertEquals("{\"high\":\"04:10\"}", typed.body());
    assertEquals("{\"high\":", Calling.get(https).body().strip());
    HttpResponse<String> zipped = Calling.get(https);
    assertThrows(
        ZipException.class,
        () ->
            new GZIPInputStream(
                new ByteArrayInputStream(zipped.body().getBytes(StandardCharsets.UTF_8))));
    assertFalse(Calling.get(https).body().contains("high"));
  }

  @Test
  void earlyFaultCannotBeComputedOrHeld() throws Exception {
    Answer late = computed(received -> unknownHost());
    net.stub("GET " + http).answer(late);

    assertEquals(500, Calling.get(http).statusCode());

    assertThrows(AssertionFailedError.class, net::close);
    assertThrows(
        IllegalStateException.class, () -> connectionRefused().delayed(Duration.ofSeconds(1)));
  }

  private static String post(HttpClient client, String url) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(url))
            .POST(HttpRequest.BodyPublishers.ofString("{}"))
            .build();
    return Calling.send(client, request).body();
  }

  private static IOException failure(String url) {
    try {
      Calling.plain(url);
    } catch (IOException failed) {
      return failed;
    }
    throw new AssertionError("no failure");
  }

  private static HttpURLConnection connection(String url) throws IOException {
    return (HttpURLConnection) URI.create(url).toURL().openConnection();
  }
}
