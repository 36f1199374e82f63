// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.realService;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.UnknownHostException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** Where interception stops. */
class LetThroughTest {

  private RealService real;
  private Cachette net;

  @BeforeEach
  void open() throws Exception {
    real = new RealService("real");
    net = Cachette.open();
  }

  @AfterEach
  void close() {
    net.close();
    real.close();
  }

  @Test
  void aStubCanAnswerWhatTheRealServiceAnswers() throws Exception {
    net.stub("GET " + real.url()).answer(realService());
    net.stub("GET http://localhost:" + real.port() + "/v2")
        .answer(
            realService()
                .transformed(answer -> answer.status(503).header("retry-after", "1"))
                .transformed(answer -> answer.header("x-desk", "7")));

    assertEquals("real", Calling.get(real.url()).body());
    HttpResponse<String> altered = Calling.get("http://localhost:" + real.port() + "/v2");

    assertEquals(503, altered.statusCode());
    assertEquals("real", altered.body());
    assertEquals("1", altered.headers().firstValue("retry-after").orElseThrow());
    assertEquals("7", altered.headers().firstValue("x-desk").orElseThrow());
    net.calls().assertCount(2);
  }

  @Test
  void theRestOfAHostIsLetThrough() throws Exception {
    net.letThrough("localhost:" + real.port());
    net.stub("GET http://localhost:" + real.port() + "/stubbed").answer(text("stubbed"));

    assertEquals("stubbed", Calling.get("http://localhost:" + real.port() + "/stubbed").body());
    assertEquals("real", Calling.get(real.url()).body());

    assertEquals(
        "let through localhost:" + real.port(), net.calls().last().stub().orElseThrow().name());
  }

  @Test
  void requestsOfOneKindAreLetThrough() throws Exception {
    net.letThrough("GET http://localhost:" + real.port() + "/v1");
    net.stub("GET http://localhost:" + real.port() + "/stubbed").answer(text("stubbed"));

    assertEquals("real", Calling.get(real.url()).body());
    assertEquals(501, Calling.get("http://localhost:" + real.port() + "/v3").statusCode());
    assertThrows(AssertionFailedError.class, net::close);
  }

  @Test
  void anUnreachableServiceFailsTheTest() throws Exception {
    net.stub("GET https://tides.example/v1").named("tides").answer(realService());

    assertThrows(IOException.class, () -> Calling.get("https://tides.example/v1"));

    AssertionFailedError failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(
        failure.getMessage().startsWith("The real service did not answer the call that the stub"),
        failure::getMessage);
    assertTrue(failure.getMessage().contains("\"tides\" (LetThroughTest.java:"));
    assertTrue(failure.getMessage().contains("unknown host (tides.example"), failure::getMessage);
  }

  @Test
  void anUnreachableServiceMayBeAccepted() throws Exception {
    net.stub("GET https://tides.example/v1").answer(realService().mayFail());

    assertThrows(IOException.class, () -> Calling.get("https://tides.example/v1"));
    net.calls().assertCount(1);
  }

  /** Nobody has an address of TEST-NET-3 (RFC 5737), though some networks answer for it. */
  @Test
  void connectionsThatAreLetThroughAreListedWithTheirOutcome() {
    net.letThrough("203.0.113.9");
    List<String> connected = new ArrayList<>();
    List<String> failed = new ArrayList<>();
    for (int port : List.of(443, 8125, 8126)) {
      (connect("203.0.113.9", port) ? connected : failed).add("203.0.113.9:" + port);
    }
    net.letThrough("tides.example");
    connect("tides.example", 443);
    failed.add("tides.example:443");

    net.calls().attempts("https://203.0.113.9").assertCount(1);
    String said =
        assertThrows(AssertionFailedError.class, () -> net.calls().assertCount(1)).getMessage();
    assertEquals(
        "Expected exactly 1 call, but there was none.\n\nNo calls were made."
            + (connected.isEmpty()
                ? ""
                : "\n\nLet through, so their calls are not seen: "
                    + String.join(", ", connected)
                    + ".")
            + "\n\nLet through, but not connected: "
            + String.join(", ", failed)
            + ".",
        said);
  }

  @Test
  void anUnknownHostThatIsLetThroughIsSaidToBe() {
    net.letThrough("tides.example");
    connect("tides.example", 443);

    AssertionFailedError said =
        assertThrows(
            AssertionFailedError.class,
            () -> net.calls().attempts("https://tides.example").assertNone());
    assertTrue(said.getMessage().contains("1. let through, unknown host"), said.getMessage());
  }

  private static boolean connect(String host, int port) {
    try (Socket socket = new Socket()) {
      socket.connect(new InetSocketAddress(host, port), 50);
      return true;
    } catch (IOException nobodyIsThere) {
      return false;
    }
  }

  @Test
  void passedThroughHostsAreLookedUpForReal() {
    net.letThrough("*.tides.example", "berths.example");

    assertThrows(UnknownHostException.class, () -> InetAddress.getByName("v1.tides.example"));
    assertThrows(UnknownHostException.class, () -> InetAddress.getByName("berths.example"));
  }

  @Test
  void itLastsAsLongAsItsScope() throws Exception {
    try (Cachette.Scope test = net.scope()) {
      net.letThrough("tides.example");
      assertThrows(UnknownHostException.class, () -> InetAddress.getByName("tides.example"));
    }

    assertEquals("tides.example", InetAddress.getByName("tides.example").getHostName());
  }

  @Test
  void aStubForAHostComesFirst() throws Exception {
    net.letThrough("tides.example");
    net.stub("GET https://tides.example/v1").answer(json("{}"));

    assertEquals("{}", Calling.get("https://tides.example/v1").body());
  }

  @Test
  void invalidHostsAreRefused() {
    for (String text : new String[] {"", " ", "a/b", "https://tides.example", null}) {
      var misuse = assertThrows(IllegalArgumentException.class, () -> net.letThrough(text));
      assertTrue(misuse.getMessage().contains("letThrough(...) needs a host"), misuse::getMessage);
    }
    assertThrows(IllegalArgumentException.class, net::letThrough);
  }

  @Test
  void aDatabaseIsRefusedWithTheSettingThatAllowsIt() {
    var refused =
        assertThrows(ConnectException.class, () -> new Socket("ledger.example", 5432).close());

    assertTrue(refused.getMessage().contains("the port of PostgreSQL"), refused::getMessage);
    assertTrue(refused.getMessage().contains("net.letThrough(\"ledger.example:5432\")"));
    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(failure.getMessage().contains("ledger.example:5432"), failure::getMessage);
  }

  @Test
  void httpAtAPortOfADatabaseIsHttpWhereAStubIsForIt() throws Exception {
    net.stub("GET http://ledger.example:5432/v1").answer(text("a ledger"));

    assertEquals("a ledger", Calling.get("http://ledger.example:5432/v1").body());
  }

  @Test
  void bytesThatAreNotHttpAreListed() throws Exception {
    assertEquals("", Calling.raw("ledger.example", 7777, "\0\0\0\bstartup"));

    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(failure.getMessage().contains("begins with the bytes 00"), failure::getMessage);
    assertTrue(failure.getMessage().contains("net.letThrough(\"ledger.example:7777\")"));
  }

  @Test
  void aClientThatWaitsForAGreetingIsListed() throws Exception {
    try (Socket socket = new Socket("mail.example", 7778)) {
      socket.setSoTimeout(30_000);
      assertEquals("", new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8));
    }

    var failure = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(failure.getMessage().contains("sends nothing"), failure::getMessage);
  }
}
