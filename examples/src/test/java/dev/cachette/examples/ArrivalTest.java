// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.Arrival;
import dev.cachette.junit.Cassette;
import dev.cachette.junit.InterceptHttp;
import java.time.LocalDate;
import org.junit.jupiter.api.Test;

/**
 * Six calls to five services, answered from a cassette: {@code src/test/cassettes/harbour}. What
 * the desk shows as its secret and its key does not matter, as neither is in the recording.
 */
@InterceptHttp
class ArrivalTest {

  @Test
  @Cassette("harbour/arrival")
  void plansAnArrival(Cachette net) {
    String planned =
        new Arrival("any secret", "any key").plan("Kittiwake", LocalDate.of(2031, 4, 2), 12);

    assertEquals("berth B-12 from 04:10, declared as C-2aaea4ac", planned);
    net.calls("POST https://berths.example/v1/bookings").assertCount(2);
  }
}
