// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.connectionRefused;
import static dev.cachette.Factories.expiredCertificate;
import static dev.cachette.Factories.handshakeRefused;
import static dev.cachette.Factories.text;
import static dev.cachette.Factories.unknownHost;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Answer;
import dev.cachette.clients.HarbourClient.Reply;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * A fault before the request takes one turn for each call of the code under test, however often its
 * client connects for that call: every client meets faults and answers in the order of the stub,
 * with kept connections, too.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class FaultTurnsTest {

  /** After a failed handshake it tries again in the background, or waits for its own timeout. */
  private static final String REPEATS_HANDSHAKES = "AWS SDK 2, Netty";

  private static int hosts;

  static Stream<Row> clients() {
    return Row.all().stream().filter(Row::runsHere);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("clients")
  void eachCallTakesOneTurn(Row row) throws Exception {
    List<String> wrong = new ArrayList<>();
    try (Cachette net = Cachette.open(Settings.defaults().unusedStubs(UnusedStubs.IGNORE))) {
      for (Protocol protocol : row.protocols()) {
        if (protocol == Protocol.HTTP_2_CLEAR) {
          continue;
        }
        try (HarbourClient client = row.create(protocol)) {
          for (Answer fault : faults(row, protocol)) {
            for (String turns : List.of("fault ok ok", "ok fault ok", "ok ok fault fault ok")) {
              String met = met(net, client, protocol, fault, turns);
              if (!met.equals(turns)) {
                wrong.add("\n" + protocol + ", " + fault + ": " + turns + " was met as " + met);
              }
            }
          }
        }
      }
    }
    assertEquals(List.of(), wrong, row.name());
  }

  private static List<Answer> faults(Row row, Protocol protocol) {
    return protocol.scheme.equals("http") || row.name().equals(REPEATS_HANDSHAKES)
        ? List.of(unknownHost(), connectionRefused())
        : List.of(unknownHost(), connectionRefused(), expiredCertificate(), handshakeRefused());
  }

  private static String met(
      Cachette net, HarbourClient client, Protocol protocol, Answer fault, String turns) {
    // Another host each time, as some clients keep connections for the whole JVM.
    String url = protocol.scheme + "://turn" + ++hosts + ".tides.example/v1";
    Answer[] answers =
        Stream.of(turns.split(" "))
            .map(turn -> turn.equals("ok") ? text("ok") : fault)
            .toArray(Answer[]::new);
    net.stub("GET " + url)
        .answer(
            answers[0],
            IntStream.range(1, answers.length).mapToObj(at -> answers[at]).toArray(Answer[]::new));
    List<String> met = new ArrayList<>();
    List<String> failures = new ArrayList<>();
    for (int number = 0; number < answers.length; number++) {
      try {
        Reply reply = client.get(url);
        met.add(reply.status() == 200 ? reply.body() : "status " + reply.status());
      } catch (Exception failed) {
        met.add("fault");
        failures.add(failed.toString());
      }
    }
    String sequence = String.join(" ", met);
    // A client that keeps an address, or a connection, makes a call of it, which is reset.
    long attempts =
        net.calls().attempts(url.substring(0, url.indexOf("/v1"))).count()
            + net.calls("GET " + url).stream().filter(call -> call.fault().isPresent()).count();
    boolean counted = attempts == met.stream().filter("fault"::equals).count();
    return counted ? sequence : sequence + " in " + attempts + " attempts, " + failures;
  }
}
