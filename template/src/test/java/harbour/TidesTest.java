package harbour;

import static dev.cachette.Factories.json;
import static dev.cachette.Factories.noResponse;
import static dev.cachette.Factories.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.junit.InterceptHttp;
import java.net.http.HttpTimeoutException;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import org.junit.jupiter.api.Test;

/** Calls of the code under test are answered from stubs. Nothing leaves this machine. */
@InterceptHttp
class TidesTest {

  private static final String TIDES = "GET https://tides.example/v1/stations/{station}/tides";

  private final Tides tides = new Tides();

  @Test
  void readsTheTides(Cachette net) throws Exception {
    net.stub(TIDES).answer(json(Map.of("high", "04:10")));

    assertEquals("{\"high\":\"04:10\"}", tides.today());
    assertEquals("marrow", net.calls().last().variable("station"));
  }

  @Test
  void triesAgainIfTheServiceIsBusy(Cachette net) throws Exception {
    net.stub(TIDES).answer(status(503), json(Map.of("high", "04:10")));

    assertEquals("{\"high\":\"04:10\"}", tides.today());
    net.calls(TIDES).assertCount(2);
  }

  /** The clock of the session is moved past the timeout of the client: nobody waits ten seconds. */
  @Test
  void givesUpAfterItsTimeout(Cachette net) {
    net.stub(TIDES).answer(noResponse());
    CompletableFuture<String> reading =
        CompletableFuture.supplyAsync(
            () -> {
              try {
                return tides.today();
              } catch (Exception failed) {
                throw new IllegalStateException(failed);
              }
            });
    net.calls().awaitArrival(1, Duration.ofSeconds(10));

    net.clock().advance(Duration.ofSeconds(11));

    ExecutionException failed = assertThrows(ExecutionException.class, reading::get);
    assertEquals(HttpTimeoutException.class, failed.getCause().getCause().getClass());
  }
}
