// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.Guard;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * A client that outlives a session, as one in a static field does, works in the next one at once,
 * though it has kept its connections.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class NextSessionTest {

  /** More of them, with other load on the machine, show a race: {@code -Dmatrix.sessions=1000}. */
  private static final int SESSIONS = Integer.getInteger("matrix.sessions", 10);

  static Stream<Row> clients() {
    return Row.all().stream().filter(Row::runsHere);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("clients")
  void clientWorksInTheNextSession(Row row) throws Exception {
    List<String> failures = failures(row);
    if (failures.size() == 1) {
      // A machine that stands still for longer than close() waits: a defect fails again.
      failures = failures(row);
    }
    assertEquals(List.of(), failures, row.name());
  }

  private static List<String> failures(Row row) throws Exception {
    List<String> failures = new ArrayList<>();
    for (Protocol protocol : row.protocols()) {
      try (HarbourClient client = row.create(protocol)) {
        for (int session = 0; session < SESSIONS; session++) {
          String outcome = outcome(client, protocol.scheme + "://next.tides.example/v1");
          if (!outcome.equals("ok ok")) {
            failures.add(protocol + ", session " + session + ": " + outcome);
          }
        }
      }
    }
    return failures;
  }

  /** Its connections are of no use then: it notices at once, and does not wait for an answer. */
  @ParameterizedTest(name = "{0}")
  @MethodSource("clients")
  @Timeout(20)
  void clientFailsWithoutASession(Row row) throws Exception {
    for (Protocol protocol : row.protocols()) {
      String url = protocol.scheme + "://between.tides.example/v1";
      try (HarbourClient client = row.create(protocol)) {
        assertEquals("ok ok", outcome(client, url));
        callGuarded(client, url);
        assertEquals("ok ok", outcome(client, url), protocol + " in the session after");
      }
    }
  }

  private static void callGuarded(HarbourClient client, String url) {
    Guard guard = Cachette.guard();
    try {
      assertThrows(Exception.class, () -> client.post(url, "{}"));
    } finally {
      try {
        guard.close();
      } catch (AssertionError refused) {
        // If the client has tried again on a new connection.
      }
    }
  }

  private static String outcome(HarbourClient client, String url) {
    try (Cachette net = Cachette.open(Settings.defaults().unusedStubs(UnusedStubs.IGNORE))) {
      net.stub("POST " + url).answer(text("ok"));
      return client.post(url, "{}").body() + " " + client.post(url, "{}").body();
    } catch (Exception failure) {
      return failure.toString();
    }
  }
}
