package dev.cachette.clients;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import dev.cachette.Cachette;
import dev.cachette.calls.Call;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** Every client, over http and https, made before and after open(). */
class ClientMatrixTest {

  static Stream<Arguments> clientsAndSchemes() {
    return Arrays.stream(Client.values())
        .flatMap(client -> Stream.of("http", "https").map(scheme -> arguments(client, scheme)));
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clientsAndSchemes")
  void isInterceptedWhenMadeBeforeOpen(Client kind, String scheme) throws Exception {
    try (HarbourClient client = kind.create();
        Cachette net = Cachette.open()) {
      getsAndPosts(client, net, scheme);
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clientsAndSchemes")
  void isInterceptedWhenMadeAfterOpen(Client kind, String scheme) throws Exception {
    try (Cachette net = Cachette.open();
        HarbourClient client = kind.create()) {
      getsAndPosts(client, net, scheme);
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clientsAndSchemes")
  void isInterceptedAgainAfterAnotherOpen(Client kind, String scheme) throws Exception {
    String url = scheme + "://tides.example/v1/tides";
    try (HarbourClient client = kind.create()) {
      for (String tide : List.of("high", "low")) {
        try (Cachette net = Cachette.open()) {
          net.stub("GET " + url).answer(text(tide));
          assertEquals(tide, client.get(url).body());
        }
      }
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clientsAndSchemes")
  void makesCallsAtOnce(Client kind, String scheme) throws Exception {
    ExecutorService threads = Executors.newFixedThreadPool(20);
    try (Cachette net = Cachette.open();
        HarbourClient client = kind.create()) {
      net.stub("GET " + scheme + "://tides.example/v1/{n}").answer(text("ok"));

      List<Future<HarbourClient.Reply>> replies =
          IntStream.range(0, 20)
              .mapToObj(n -> threads.submit(() -> client.get(scheme + "://tides.example/v1/" + n)))
              .toList();

      for (Future<HarbourClient.Reply> reply : replies) {
        assertEquals("ok", reply.get().body());
      }
      net.calls().assertCount(20);
    } finally {
      threads.shutdown();
    }
  }

  @ParameterizedTest(name = "{0} over {1}")
  @MethodSource("clientsAndSchemes")
  void isToldWhyACallWasUnexpected(Client kind, String scheme) throws Exception {
    Cachette net = Cachette.open();
    try (HarbourClient client = kind.create()) {
      net.stub("GET " + scheme + "://tides.example/v1/tides").answer(text("high"));

      HarbourClient.Reply reply = client.get(scheme + "://tides.example/v1/tide");

      assertEquals(501, reply.status());
      assertTrue(reply.body().startsWith("No stub answers this call."), reply::body);
      assertTrue(reply.body().contains("NO   path     expected  /v1/tides"), reply::body);
    } finally {
      assertThrows(AssertionFailedError.class, net::close);
    }
  }

  private static void getsAndPosts(HarbourClient client, Cachette net, String scheme)
      throws Exception {
    String tides = scheme + "://tides.example/v1/stations/marrow/tides?day=2";
    String bookings = scheme + "://berths.example:8443/v1/bookings";
    net.stub("GET " + scheme + "://tides.example/v1/stations/{station}/tides")
        .answer(json("{\"high\":\"04:10\"}"));
    net.stub("POST " + bookings).answer(status(503), json("{\"berth\":\"B-12\"}").status(201));

    assertEquals(new HarbourClient.Reply(200, "{\"high\":\"04:10\"}"), client.get(tides));
    // Apache's clients repeat the call after a 503 by themselves; the others leave that to us.
    int first = client.post(bookings, "{\"vessel\":\"Kittiwake\"}").status();
    if (first == 503) {
      assertEquals(201, client.post(bookings, "{\"vessel\":\"Kittiwake\"}").status());
    }

    Call booked = net.calls("POST " + bookings).assertCount(2).last();
    assertEquals("Kittiwake", booked.json().at("/vessel").asText());
    assertEquals(201, booked.response().status());
    Call tide = net.calls("GET " + scheme + "://tides.example/{+rest}").only();
    assertEquals(tides, tide.uri().toString());
  }
}
