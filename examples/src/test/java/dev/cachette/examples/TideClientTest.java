// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import com.fasterxml.jackson.core.JsonProcessingException;
import dev.cachette.Cachette;
import dev.cachette.calls.Call;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.TideClient;
import dev.cachette.examples.harbour.Tides;
import dev.cachette.junit.InterceptHttp;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** A first stub: what a service answers, and what was asked. */
@InterceptHttp
class TideClientTest {

  private static final String TIDES = "GET https://tides.example/v1/stations/{station}/tides";
  private static final LocalDate DAY = LocalDate.of(2031, 4, 2);

  @Test
  void readsTheTidesOfAStation(Cachette net) {
    net.stub(TIDES).answer(json("{\"station\": \"Marrow Bay\", \"high\": [\"04:10\", \"16:35\"]}"));

    Tides tides = new TideClient().tidesOf("Marrow Bay", DAY);

    assertEquals(List.of("04:10", "16:35"), tides.high());
    Call call = net.calls(TIDES).only();
    assertEquals("Marrow Bay", call.variable("station"));
    assertEquals(Optional.of("2031-04-02"), call.query("day"));
    assertEquals(Optional.of("application/json"), call.header("accept"));
  }

  @Test
  void writesAnAnswerFromAnObject(Cachette net) {
    net.stub(TIDES).answer(json(new Tides("Marrow Bay", List.of())));

    assertEquals(List.of(), new TideClient().tidesOf("Marrow Bay", DAY).high());
  }

  @Test
  void saysWhenTheServiceFails(Cachette net) {
    net.stub(TIDES).answer(status(500));

    var failure =
        assertThrows(HarbourException.class, () -> new TideClient().tidesOf("Marrow Bay", DAY));
    assertEquals("the tide service answered 500", failure.getMessage());
  }

  @Test
  void reportsAnAnswerThatIsNotATideTable(Cachette net) {
    net.stub(TIDES).answer(text("<html>Closed for the night</html>"));

    var failure =
        assertThrows(HarbourException.class, () -> new TideClient().tidesOf("Marrow Bay", DAY));
    assertEquals(true, failure.getCause() instanceof JsonProcessingException);
  }
}
