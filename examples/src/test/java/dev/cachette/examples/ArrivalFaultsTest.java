// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.Arrival;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.junit.InterceptHttp;
import dev.cachette.sweep.FaultSweep;
import java.time.Duration;
import java.time.LocalDate;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.TestFactory;

/**
 * The arrival with each fault at each of its calls. When this test was written, 26 runs went wrong:
 * no client had a timeout, an empty response of customs became the number of the declaration, and
 * OkHttp booked again after a connection reset.
 */
@InterceptHttp
class ArrivalFaultsTest {

  // snippet sweep
  @TestFactory
  Stream<DynamicNode> arrivalSurvivesEachFault(Cachette net) {
    net.cassette("harbour/arrival");
    Arrival arrival = new Arrival("any secret", "any key");
    return FaultSweep.of(net, () -> arrival.plan("Kittiwake", LocalDate.of(2031, 4, 2), 12))
        .named("The arrival of Kittiwake")
        .result(it -> assertEquals("berth B-12 from 04:10, declared as C-2aaea4ac", it))
        .allow(HarbourException.class)
        .within(Duration.ofSeconds(20)) // The timers of OkHttp over HTTP/2 run in real time.
        .tests();
  }
  // end
}
