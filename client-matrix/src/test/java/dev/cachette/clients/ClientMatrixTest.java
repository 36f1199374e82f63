// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.calls.Call;
import dev.cachette.clients.HarbourClient.Reply;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/**
 * Every client, over every protocol that it speaks, made before and after open(). What is found out
 * about them on the way stands in docs/clients.md.
 */
class ClientMatrixTest {

  private static final String HIGH = "{\"high\":\"04:10\"}";
  private static final Findings FINDINGS = new Findings();

  static Stream<Arguments> clients() {
    return Findings.rows()
        .flatMap(row -> row.protocols().stream().map(protocol -> arguments(row, protocol)));
  }

  static Stream<Arguments> clientsOverHttp() {
    return Findings.rows().map(row -> arguments(row, Protocol.HTTP));
  }

  @BeforeAll
  static void noteConnections() {
    Cachette.prepare();
  }

  @AfterAll
  static void table() throws IOException {
    FINDINGS.assertWritten();
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void isInterceptedWhenMadeBeforeOpen(Row row, Protocol protocol) throws Exception {
    try (HarbourClient client = row.create(protocol);
        Cachette net = Cachette.open()) {
      getsAndPosts(row, client, net, protocol);
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void isInterceptedWhenMadeAfterOpen(Row row, Protocol protocol) throws Exception {
    try (Cachette net = Cachette.open();
        HarbourClient client = row.create(protocol)) {
      getsAndPosts(row, client, net, protocol);
    }
    FINDINGS.speaks(row, protocol);
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void isInterceptedAgainAfterAnotherOpen(Row row, Protocol protocol) throws Exception {
    String url = protocol.scheme + "://tides.example/v1/tides";
    try (HarbourClient client = row.create(protocol)) {
      for (String tide : List.of("high", "low")) {
        try (Cachette net = Cachette.open()) {
          net.stub("GET " + url).answer(text(tide));
          assertEquals(tide, KeptConnections.getAtLast(client, url).body());
        }
      }
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void sendsAndGetsLargeBodies(Row row, Protocol protocol) throws Exception {
    String url = protocol.scheme + "://charts.example/bay";
    String chart = "a chart of the bay ".repeat(60_000);
    try (Cachette net = Cachette.open();
        HarbourClient client = row.create(protocol)) {
      net.stub("POST " + url).answer(text(chart));

      assertEquals(chart, client.post(url, chart).body());

      assertEquals(chart, net.calls().only().text());
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void getsGzip(Row row, Protocol protocol) throws Exception {
    String url = protocol.scheme + "://charts.example/bay";
    try (Cachette net = Cachette.open();
        HarbourClient client = row.create(protocol)) {
      net.stub("GET " + url).answer(json(HIGH).gzip());

      Reply reply = client.get(url);

      boolean decoded = reply.body().equals(HIGH);
      if (!decoded) {
        GZIPInputStream unzipped = new GZIPInputStream(new ByteArrayInputStream(reply.bytes()));
        assertEquals(HIGH, new String(unzipped.readAllBytes(), StandardCharsets.UTF_8));
      }
      FINDINGS.gzip(row, decoded);
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void isRedirected(Row row, Protocol protocol) throws Exception {
    String from = protocol.scheme + "://tides.example/old";
    String to = protocol.scheme + "://tides.example/new";
    try (Cachette net = Cachette.open();
        HarbourClient client = row.create(protocol)) {
      net.stub("GET " + from).answer(redirect(to));
      Stub moved = net.stub("GET " + to).answer(text("moved"));

      Reply reply = client.get(from);

      boolean followed = reply.status() == 200;
      assertEquals(followed ? "moved" : "", reply.body());
      moved.calls().assertCount(followed ? 1 : 0);
      FINDINGS.redirect(row, followed);
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void keepsItsConnection(Row row, Protocol protocol) throws Exception {
    String url = protocol.scheme + "://tides.example/v1";
    try (Cachette net = Cachette.open();
        HarbourClient client = row.create(protocol)) {
      net.stub("GET " + url).answer(text("high"));

      // Some give a connection back only a moment after its response, and make another meanwhile.
      Set<Integer> connections = new HashSet<>();
      boolean reused = false;
      for (int call = 0; call < 50 && !reused; call++) {
        assertEquals("high", client.get(url).body());
        reused = !connections.add(net.calls().last().connection());
      }

      assertTrue(reused, "never uses a connection again");
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void makesCallsConcurrently(Row row, Protocol protocol) throws Exception {
    ExecutorService threads = Executors.newFixedThreadPool(20);
    try (Cachette net = Cachette.open();
        HarbourClient client = row.create(protocol)) {
      String url = protocol.scheme + "://tides.example/v1/";
      net.stub("GET " + url + "{n}").answer(text("ok"));

      List<Future<Reply>> replies =
          IntStream.range(0, 20).mapToObj(n -> threads.submit(() -> client.get(url + n))).toList();

      for (Future<Reply> reply : replies) {
        assertEquals("ok", reply.get().body());
      }
      net.calls().assertCount(20);
    } finally {
      threads.shutdown();
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clients")
  void isToldWhyACallWasUnexpected(Row row, Protocol protocol) throws Exception {
    Cachette net = Cachette.open();
    try (HarbourClient client = row.create(protocol)) {
      net.stub("GET " + protocol.scheme + "://tides.example/v1/tides").answer(text("high"));

      Reply reply = client.get(protocol.scheme + "://tides.example/v1/tide");

      assertEquals(501, reply.status());
      assertTrue(reply.body().startsWith("Unexpected call: "), reply::body);
      assertTrue(reply.body().contains("NO   path     expected  /v1/tides"), reply::body);
    } finally {
      assertThrows(AssertionFailedError.class, net::close);
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clientsOverHttp")
  void doesNotGoOnByAConnectionFromBefore(Row row, Protocol protocol) throws Exception {
    try (KeptService real = new KeptService("real");
        HarbourClient client = row.create(protocol)) {
      assertEquals("real", client.get(real.url()).body());
      assertEquals("real", client.get(real.url()).body());
      try (Cachette net = Cachette.open()) {
        net.stub("GET,POST " + real.url()).answer(text("stubbed"));

        FINDINGS.fromBefore(row, KeptConnections.outcome(() -> client.get(real.url())));
        assertEquals("stubbed", KeptConnections.getAtLast(client, real.url()).body());
      }
    }
  }

  private static void getsAndPosts(Row row, HarbourClient client, Cachette net, Protocol protocol)
      throws Exception {
    String tides = protocol.scheme + "://tides.example/v1/stations/marrow/tides?day=2";
    String bookings = protocol.scheme + "://berths.example:8443/v1/bookings";
    net.stub("GET " + protocol.scheme + "://tides.example/v1/stations/{station}/tides")
        .answer(json(HIGH));
    net.stub("POST " + bookings).answer(status(503), json("{\"berth\":\"B-12\"}").status(201));

    Reply tide = client.get(tides);
    assertEquals(200, tide.status());
    assertEquals(HIGH, tide.body());
    // Some clients repeat the call after a 503 by themselves; the others leave that to us.
    int first = client.post(bookings, "{\"vessel\":\"Kittiwake\"}").status();
    FINDINGS.repeats(row, first != 503);
    if (first == 503) {
      assertEquals(201, client.post(bookings, "{\"vessel\":\"Kittiwake\"}").status());
    }

    Call booked = net.calls("POST " + bookings).assertCount(2).last();
    assertEquals("Kittiwake", booked.json().at("/vessel").asText());
    assertEquals(201, booked.response().status());
    Call asked = net.calls("GET " + protocol.scheme + "://tides.example/{+rest}").only();
    assertEquals(tides, asked.uri().toString());
    assertEquals(protocol.version, asked.protocol());
  }
}
