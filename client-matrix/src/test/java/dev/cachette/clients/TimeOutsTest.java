// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.connectTimeout;
import static dev.cachette.Factories.noResponse;
import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.answer.Answer;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URLConnection;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import okhttp3.OkHttpClient;
import okhttp3.Protocol;
import okhttp3.Request;
import okhttp3.Response;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.BasicHttpClientConnectionManager;
import org.apache.hc.core5.util.Timeout;
import org.apache.http.client.config.RequestConfig;
import org.apache.http.impl.client.HttpClientBuilder;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.api.condition.DisabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * The clock of the session lets a client time out at once that waits for a connection or a
 * response, and ends delays. All of them wait for ten minutes, which no test could.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class TimeOutsTest {

  private static final String NO_CONNECT_TIMEOUT = "Windows refuses the connection instead";

  private static final Duration TIME_OUT = Duration.ofMinutes(10);
  private static final Duration PATIENCE = Duration.ofSeconds(20);
  private static final int MILLIS = (int) TIME_OUT.toMillis();

  /** A client with a timeout. */
  private interface Client {

    Object get(String url) throws Exception;
  }

  static Stream<Arguments> clients() {
    return Stream.of(
            client("HttpURLConnection", TimeOutsTest::urlConnection),
            client("Apache HttpClient 4", TimeOutsTest::apache4),
            client("Apache HttpClient 5", TimeOutsTest::apache5),
            client("OkHttp", TimeOutsTest::okHttp),
            client("JDK HttpClient, HTTP/1.1", url -> java(url, HttpClient.Version.HTTP_1_1)),
            client("JDK HttpClient, HTTP/2", url -> java(url, HttpClient.Version.HTTP_2)),
            client("JDK HttpClient, timeout of the request", TimeOutsTest::javaRequest))
        .flatMap(
            client ->
                Stream.of("http", "https")
                    .map(scheme -> Arguments.of(client.get()[0], scheme, client.get()[1])));
  }

  private static Arguments client(String name, Client client) {
    return Arguments.of(name, client);
  }

  @ParameterizedTest(name = "{0}, {1}")
  @MethodSource("clients")
  void aClientTimesOutWhenTheClockPassesItsTime(String name, String scheme, Client client)
      throws Exception {
    try (Waiting waiting = new Waiting(scheme, client, noResponse())) {
      waiting.net.calls().awaitArrival(1, PATIENCE);

      waiting.net.clock().advance(TIME_OUT.minusSeconds(60));
      assertFalse(waiting.calling.isDone());
      waiting.net.clock().advance(Duration.ofSeconds(61));

      waiting.assertTimedOut();
    }
  }

  @ParameterizedTest(name = "{0}, {1}")
  @MethodSource("clients")
  void aClientTimesOutBeforeALongerDelayIsOver(String name, String scheme, Client client)
      throws Exception {
    Answer late = text("late").delayed(TIME_OUT.plusSeconds(1));
    try (Waiting waiting = new Waiting(scheme, client, late)) {
      waiting.net.calls().awaitArrival(1, PATIENCE);

      waiting.net.clock().advance(TIME_OUT.plusSeconds(60));

      waiting.assertTimedOut();
    }
  }

  @ParameterizedTest(name = "{0}, {1}")
  @MethodSource("clients")
  void aClientGetsAResponseWhoseDelayTheClockHasPassed(String name, String scheme, Client client)
      throws Exception {
    Answer late = text("late").delayed(TIME_OUT.minusSeconds(60));
    try (Waiting waiting = new Waiting(scheme, client, late)) {
      waiting.net.calls().awaitArrival(1, PATIENCE);

      waiting.net.clock().advance(TIME_OUT.minusSeconds(90));
      assertFalse(waiting.calling.isDone());
      waiting.net.clock().advance(TIME_OUT);

      waiting.calling.get(PATIENCE.toSeconds(), TimeUnit.SECONDS);
      waiting.net.calls().assertCount(1);
    }
  }

  @DisabledOnOs(value = OS.WINDOWS, disabledReason = NO_CONNECT_TIMEOUT)
  @ParameterizedTest(name = "{0}, {1}")
  @MethodSource("clients")
  void anAttemptToConnectTimesOutWhenTheClockPassesItsTime(
      String name, String scheme, Client client) throws Exception {
    try (Waiting waiting = new Waiting(scheme, client, connectTimeout())) {
      while (waiting.net.calls().attempts(scheme + "://tides.example").count() == 0) {
        Thread.onSpinWait();
      }

      waiting.net.clock().advance(TIME_OUT.minusSeconds(60));
      assertFalse(waiting.calling.isDone());
      waiting.net.clock().advance(Duration.ofSeconds(61));

      waiting.assertTimedOut();
      waiting.net.calls().attempts(scheme + "://tides.example").assertCount(1);
    }
  }

  /** A call of a client, on a thread of its own, in a session. */
  private static final class Waiting implements AutoCloseable {

    private final ExecutorService pool = Executors.newSingleThreadExecutor();
    private final Cachette net = Cachette.open();
    private final Future<Object> calling;

    Waiting(String scheme, Client client, Answer answer) {
      String url = scheme + "://tides.example/v1";
      net.stub("GET " + url).answer(answer);
      calling = pool.submit((Callable<Object>) () -> client.get(url));
    }

    void assertTimedOut() {
      ExecutionException failed =
          assertThrows(
              ExecutionException.class, () -> calling.get(PATIENCE.toSeconds(), TimeUnit.SECONDS));
      String root = Findings.rootOf(failed).toString();
      assertTrue(root.contains("imed out") || root.contains("imeout"), root);
    }

    @Override
    public void close() {
      try (net) {
        pool.shutdownNow();
      }
    }
  }

  private static Object urlConnection(String url) throws IOException {
    URLConnection connection = URI.create(url).toURL().openConnection();
    connection.setConnectTimeout(MILLIS);
    connection.setReadTimeout(MILLIS);
    try (InputStream in = connection.getInputStream()) {
      return in.read();
    }
  }

  private static Object apache4(String url) throws IOException {
    RequestConfig config =
        RequestConfig.custom().setConnectTimeout(MILLIS).setSocketTimeout(MILLIS).build();
    try (var client =
        HttpClientBuilder.create()
            .setDefaultRequestConfig(config)
            .disableAutomaticRetries()
            .build()) {
      return client.execute(new org.apache.http.client.methods.HttpGet(url)).getStatusLine();
    }
  }

  private static Object apache5(String url) throws IOException {
    BasicHttpClientConnectionManager connections = new BasicHttpClientConnectionManager();
    connections.setConnectionConfig(
        ConnectionConfig.custom()
            .setConnectTimeout(Timeout.of(TIME_OUT))
            .setSocketTimeout(Timeout.of(TIME_OUT))
            .build());
    try (CloseableHttpClient client =
        HttpClients.custom().setConnectionManager(connections).disableAutomaticRetries().build()) {
      return client.execute(new HttpGet(url), response -> response.getCode());
    }
  }

  private static Object okHttp(String url) throws IOException {
    OkHttpClient client =
        new OkHttpClient.Builder()
            .connectTimeout(TIME_OUT)
            .readTimeout(TIME_OUT)
            .protocols(List.of(Protocol.HTTP_1_1))
            .retryOnConnectionFailure(false)
            .build();
    try (Response response = client.newCall(new Request.Builder().url(url).build()).execute()) {
      return response.code();
    }
  }

  private static Object java(String url, HttpClient.Version version) throws Exception {
    HttpClient client = HttpClient.newBuilder().version(version).connectTimeout(TIME_OUT).build();
    HttpRequest request = HttpRequest.newBuilder(URI.create(url)).timeout(TIME_OUT).build();
    CompletableFuture<?> answer = client.sendAsync(request, BodyHandlers.ofString());
    return answer.get();
  }

  private static Object javaRequest(String url) throws Exception {
    HttpRequest request = HttpRequest.newBuilder(URI.create(url)).timeout(TIME_OUT).build();
    return HttpClient.newHttpClient().send(request, BodyHandlers.ofString());
  }
}
