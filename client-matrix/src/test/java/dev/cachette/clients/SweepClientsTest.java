// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import dev.cachette.clients.HarbourClient.Reply;
import dev.cachette.sweep.FaultSweep;
import dev.cachette.sweep.result.SweepFault;
import dev.cachette.sweep.result.SweptRun;
import dev.cachette.sweep.result.SweptRun.Outcome;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * In a fault sweep every client meets the faults, and what one run leaves of its connections does
 * not disturb the next one. Timeouts, which the clients of the matrix do not set, are in {@link
 * TimeOutsTest}; statuses after which some wait for a second, and contents, are no matter of
 * connections.
 */
@Tag("once")
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class SweepClientsTest {

  static Stream<Row> clients() {
    return Row.all().stream().filter(Row::runsHere);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("clients")
  void everyFaultOccurs(Row row) throws Exception {
    List<String> wrong = new ArrayList<>();
    for (Protocol protocol : row.protocols()) {
      try (HarbourClient client = row.create(protocol);
          Cachette net = Cachette.open(Settings.defaults().unusedStubs(UnusedStubs.IGNORE))) {
        String tides = protocol.scheme + "://tides.example/v1";
        String berths = protocol.scheme + "://berths.example/v1";
        net.stub("GET " + tides).answer(json(Map.of("high", "04:10")));
        net.stub("POST " + berths).answer(json(Map.of("berth", "B-12")));
        FaultSweep.of(
                net,
                () -> {
                  require(client.get(tides), "{\"high\":\"04:10\"}");
                  require(client.post(berths, "{}"), "{\"berth\":\"B-12\"}");
                  return "";
                })
            .allow(Exception.class)
            .faults(
                SweepFault.UNKNOWN_HOST,
                SweepFault.CONNECTION_REFUSED,
                SweepFault.CONNECTION_RESET,
                SweepFault.RESET_MID_BODY,
                SweepFault.SERVER_ERROR,
                SweepFault.MISSING_MEMBER,
                SweepFault.SLOW)
            .slow(Duration.ofMillis(10))
            .run()
            .runs()
            .stream()
            .filter(SweepClientsTest::isWrong)
            .forEach(run -> wrong.add("\n" + protocol + " " + run.id() + " " + run));
      }
    }
    assertEquals(List.of(), wrong, row.name());
  }

  private static void require(Reply reply, String body) throws IOException {
    if (reply.status() != 200 || !reply.body().equals(body)) {
      throw new IOException(reply.status() + " " + reply.body());
    }
  }

  /** Returns true unless the fault occurred as it should; clients may repeat calls. */
  private static boolean isWrong(SweptRun run) {
    return run.outcome() == Outcome.NOT_MET
        || run.outcome() == Outcome.HUNG
        || run.outcome() == Outcome.NOT_RUN
        || run.findings().stream().anyMatch(it -> it.contains("did not occur"))
        || run.findings().stream().anyMatch(it -> it.contains("did something else"))
        || run.fault() == SweepFault.SLOW && run.outcome() != Outcome.RECOVERED;
  }
}
