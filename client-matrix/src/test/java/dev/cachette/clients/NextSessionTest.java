package dev.cachette.clients;

import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.clients.HarbourClient.Reply;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A client that outlives a session, as a static field does, works in the next one at once. */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class NextSessionTest {

  private static final int SESSIONS = Integer.getInteger("matrix.sessions", 20);

  static Stream<Row> clients() {
    return Row.all().stream().filter(Row::runsHere);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("clients")
  void clientWorksInTheNextSession(Row row) throws Exception {
    List<String> failed = new ArrayList<>();
    for (Protocol protocol : row.protocols()) {
      String url = protocol.scheme + "://next.tides.example/v1";
      int failures = 0;
      long closing = 0;
      String last = "";
      try (HarbourClient client = row.create(protocol)) {
        for (int session = 0; session < SESSIONS; session++) {
          Cachette net = Cachette.open();
          try {
            net.stub("POST " + url).answer(text("ok"));
            for (int call = 0; call < 2; call++) {
              Reply reply = client.post(url, "{}");
              assertEquals("ok", reply.body());
            }
          } catch (Exception failure) {
            failures++;
            last = failure.toString();
          } finally {
            long start = System.nanoTime();
            net.close();
            closing += System.nanoTime() - start;
          }
        }
      }
      System.out.println(
          "NEXT "
              + row
              + " "
              + protocol
              + " failed "
              + failures
              + " close us "
              + closing / 1000 / SESSIONS
              + " "
              + last);
      if (failures > 0) {
        failed.add(protocol + ": " + failures + " of " + SESSIONS + ", " + last);
      }
    }
    assertEquals(List.of(), failed, row.name());
  }
}
