// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.calls.Call;
import java.net.Authenticator;
import java.net.InetAddress;
import java.net.ProxySelector;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.WebSocket;
import java.net.http.WebSocketHandshakeException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

class InterceptionTest {

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
  void callsToHostsThatDoNotExistAreAnswered() throws Exception {
    net.stub("GET https://tides.example/v1/stations/{station}/tides")
        .answer(json("{\"high\":\"04:10\"}"));
    net.stub("GET http://berths.example:8080/v1/berths").answer(text("B-12").header("X-Desk", "7"));

    HttpResponse<String> tides =
        Calling.get("https://tides.example/v1/stations/marrow%20bay/tides?day=2");
    HttpResponse<String> berths = Calling.get("http://berths.example:8080/v1/berths");

    assertEquals("{\"high\":\"04:10\"}", tides.body());
    assertEquals(List.of("application/json"), tides.headers().allValues("content-type"));
    assertEquals("B-12", berths.body());
    assertEquals("7", berths.headers().firstValue("x-desk").orElseThrow());
    Call call = net.calls("GET https://tides.example/{+rest}").only();
    assertEquals(
        "https://tides.example/v1/stations/marrow%20bay/tides?day=2", call.uri().toString());
  }

  @Test
  void answersComeInTurn() throws Exception {
    Stub booking =
        net.stub("POST https://berths.example/v1/bookings")
            .named("book a berth")
            .answer(
                status(503).header("retry-after", "1"), json(Map.of("berth", "B-12")).status(201));

    assertEquals(503, Calling.post("https://berths.example/v1/bookings", "{}").statusCode());
    assertEquals(201, Calling.post("https://berths.example/v1/bookings", "{}").statusCode());
    assertEquals(201, Calling.post("https://berths.example/v1/bookings", "{}").statusCode());

    booking.calls().assertCount(3);
    assertEquals("book a berth", booking.calls().first().stub().orElseThrow().name());
    assertTrue(
        booking.toString().matches("\"book a berth\" \\(InterceptionTest\\.java:\\d+\\)"),
        booking::toString);
  }

  @Test
  void aPathAloneMatchesAnyHost() throws Exception {
    net.stub("GET /health").answer(text("afloat"));

    assertEquals("afloat", Calling.get("https://tides.example/health").body());
    assertEquals("afloat", Calling.get("http://berths.example:81/health").body());
    assertEquals("afloat", Calling.get("http://203.0.113.7/health").body());
    assertEquals("afloat", Calling.get("http://[2001:db8::7]:8080/health").body());
    assertEquals("afloat", Calling.get("https://203.0.113.7/health").body());
  }

  @Test
  void anAddressIsAHostHoweverItIsWritten() throws Exception {
    net.stub("GET https://[2001:db8::7]:8443/v1").answer(text("afloat"));
    net.stub("GET http://[::1]:8080/v1").answer(text("at home"));

    assertEquals("afloat", Calling.get("https://[2001:DB8:0:0::7]:8443/v1").body());
    assertEquals("at home", Calling.get("http://[0:0:0:0:0:0:0:1]:8080/v1").body());
  }

  @Test
  void bytesAndLargeBodiesArriveUnchanged() throws Exception {
    byte[] chart = new byte[5_000_000];
    for (int at = 0; at < chart.length; at++) {
      chart[at] = (byte) (at * 31);
    }
    net.stub("GET https://charts.example/bay").answer(bytes(chart));
    net.stub("POST https://charts.example/bay").answer(status(204));

    var got =
        HttpClient.newHttpClient()
            .send(
                HttpRequest.newBuilder(URI.create("https://charts.example/bay")).build(),
                BodyHandlers.ofByteArray());
    Calling.post("https://charts.example/bay", "tide".repeat(1_000_000));

    assertArrayEquals(chart, got.body());
    assertEquals(4_000_000, net.calls().last().body().size());
  }

  @Test
  void aHeadRequestGetsNoBodyAndTheNextOneIsRight() throws Exception {
    net.stub("HEAD https://tides.example/v1").answer(text("high"));
    net.stub("GET https://tides.example/v1").answer(text("low"));
    HttpClient client = HttpClient.newHttpClient();
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("https://tides.example/v1"));

    var head =
        Calling.send(client, request.method("HEAD", HttpRequest.BodyPublishers.noBody()).build());
    var get = Calling.send(client, request.GET().build());

    assertEquals("", head.body());
    assertEquals("4", head.headers().firstValue("content-length").orElseThrow());
    assertEquals("low", get.body());
  }

  @Test
  void repeatedHeadersStayApart() throws Exception {
    net.stub("GET https://tides.example/v1").answer(text("").header("link", "<a>", "<b>"));

    assertEquals(
        List.of("<a>", "<b>"), Calling.get("https://tides.example/v1").headers().allValues("link"));
  }

  @Test
  void manyConcurrentCallsAreAllAnsweredAndLogged() {
    net.stub("GET https://tides.example/v1/{n}").answer(text("ok"));
    HttpClient client = HttpClient.newHttpClient();

    List<CompletableFuture<HttpResponse<String>>> running =
        IntStream.range(0, 200)
            .mapToObj(n -> URI.create("https://tides.example/v1/" + n))
            .map(
                uri ->
                    client.sendAsync(HttpRequest.newBuilder(uri).build(), BodyHandlers.ofString()))
            .toList();

    running.forEach(response -> assertEquals("ok", response.join().body()));
    Set<String> numbers =
        net.calls("GET https://tides.example/v1/{n}").stream()
            .map(call -> call.variable("n"))
            .collect(Collectors.toSet());
    assertEquals(200, numbers.size());
  }

  @Test
  void anUnexpectedCallIsExplainedToTheCallerAndFailsTheTest() throws Exception {
    net.stub("GET https://tides.example/v1/tides").answer(json("{}"));

    HttpResponse<String> response = Calling.get("http://tides.example/v1/tides");

    assertEquals(501, response.statusCode());
    assertEquals(
        "text/plain; charset=utf-8", response.headers().firstValue("content-type").orElseThrow());
    assertTrue(response.body().contains("the same host, but called by http, not https"));
    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(failure.getMessage().contains(response.body()), failure::getMessage);
  }

  @Test
  void unexpectedCallsOnlyWarnWhereThatIsWanted() throws Exception {
    net.close();
    net = Cachette.open(Settings.defaults().unexpectedCalls(UnexpectedCalls.WARN));

    assertEquals(501, Calling.get("https://tides.example/v1").statusCode());

    net.close();
  }

  @Test
  void aProxyOfTheJvmIsBypassedForInterceptedHosts() throws Exception {
    net.stub("GET https://tides.example/v1").answer(text("direct"));
    System.setProperty("https.proxyHost", "proxy.example");
    System.setProperty("https.proxyPort", "3128");
    try {
      HttpClient client =
          HttpClient.newBuilder()
              .proxy(ProxySelector.getDefault())
              .authenticator(new Authenticator() {})
              .build();

      assertEquals("direct", Calling.send(client, request("https://tides.example/v1")).body());
    } finally {
      System.clearProperty("https.proxyHost");
      System.clearProperty("https.proxyPort");
    }
  }

  @Test
  void theMachinesOwnNamesAreResolvedAsEver() throws Exception {
    assertTrue(InetAddress.getByName("localhost").isLoopbackAddress());
    assertEquals(
        InetAddress.getLocalHost(),
        InetAddress.getByName(InetAddress.getLocalHost().getHostName()));
    assertEquals("tides.example", InetAddress.getByName("tides.example").getHostName());
  }

  @Test
  void theConnectionDecidesNotTheHostHeader() throws Exception {
    net.stub("GET http://tides.example/v1").answer(text("ok"));

    String answer =
        Calling.raw(
            "tides.example",
            80,
            "GET /v1 HTTP/1.1\r\nHost: berths.example\r\nConnection: close\r\n\r\n");

    assertTrue(answer.endsWith("\r\n\r\nok"), answer);
  }

  private static ExecutionException openWebSocket() {
    URI arrivals = URI.create("wss://berths.example/v1/arrivals");
    return assertThrows(
        ExecutionException.class,
        () ->
            HttpClient.newHttpClient()
                .newWebSocketBuilder()
                .buildAsync(arrivals, new WebSocket.Listener() {})
                .get());
  }

  @Test
  void anAnswerThatNoWebSocketCanTakeIsRefused() {
    net.stub("GET https://berths.example/v1/arrivals").answer(text("no arrivals"));
    ExecutionException refused = openWebSocket();

    WebSocketHandshakeException handshake = (WebSocketHandshakeException) refused.getCause();
    assertEquals(501, handshake.getResponse().statusCode());
    AssertionFailedError failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(
        failure.getMessage().contains("asks for a WebSocket (RFC 6455)"), failure::getMessage);
  }

  @Test
  void aWebSocketIsRefusedWithTheReason() {
    ExecutionException refused = openWebSocket();

    assertTrue(refused.getCause() instanceof WebSocketHandshakeException, refused::toString);
    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(
        failure.getMessage().contains("It asks for a WebSocket (RFC 6455)"), failure::getMessage);
  }

  @Test
  void requestsInAPipelineAreAnsweredInOrder() throws Exception {
    net.stub("GET http://tides.example/{n}").answer(text("first"), text("second"));

    String answer =
        Calling.raw(
            "tides.example",
            80,
            "GET /1 HTTP/1.1\r\nHost: t\r\n\r\n"
                + "GET http://tides.example/2 HTTP/1.1\r\nHost: t\r\nConnection: close\r\n\r\n");

    assertTrue(answer.indexOf("first") < answer.indexOf("second"), answer);
    assertTrue(answer.contains("second"), answer);
  }

  @Test
  void aRequestThatIsTooLargeIsRefusedWithTheSettingThatAllowsIt() throws Exception {
    net.close();
    net = Cachette.open(Settings.defaults().maxRequestBody(1000));

    HttpResponse<String> response = Calling.post("https://charts.example/bay", "x".repeat(1001));

    assertEquals(413, response.statusCode());
    assertTrue(response.body().contains("Settings.maxRequestBody(bytes)"), response::body);
    assertThrows(AssertionFailedError.class, net::close);
  }

  @Test
  void aClientThatAsksFirstIsRefusedTheSame() throws Exception {
    net.close();
    net = Cachette.open(Settings.defaults().maxRequestBody(1000));

    String answer =
        Calling.raw(
            "charts.example",
            80,
            "POST / HTTP/1.1\r\nHost: c\r\nContent-Length: 1001\r\nExpect: 100-continue\r\n"
                + "Connection: close\r\n\r\n"
                + "x".repeat(1001));

    assertTrue(answer.contains("Settings.maxRequestBody(bytes)"), answer);
    assertThrows(AssertionFailedError.class, net::close);
  }

  @Test
  void expectContinueIsAnswered() throws Exception {
    net.stub("POST https://charts.example/bay").answer(status(201));
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("https://charts.example/bay"))
            .expectContinue(true)
            .POST(HttpRequest.BodyPublishers.ofString("chart"))
            .build();

    assertEquals(201, Calling.send(HttpClient.newHttpClient(), request).statusCode());
    assertEquals("chart", net.calls().only().text());
  }

  private static HttpRequest request(String url) {
    return HttpRequest.newBuilder(URI.create(url)).build();
  }
}
