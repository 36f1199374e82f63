// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.junit.InterceptHttp;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.opentest4j.AssertionFailedError;

/** The messages of docs/guide/explanations.md, as they are said. */
@ResourceLock(InterceptHttp.LOCK)
class ExplanationsGuideTest {

  private static final String BOOKINGS = "https://berths.example/v1/bookings";

  private static final Settings LENIENT =
      Settings.defaults().unexpectedCalls(UnexpectedCalls.WARN).unusedStubs(UnusedStubs.FAIL);

  @Test
  void anUnexpectedCall() {
    try (Cachette net = Cachette.open(LENIENT.unusedStubs(UnusedStubs.IGNORE))) {
      // snippet stub
      net.stub("POST https://berths.example/v1/bookings")
          .named("book a berth")
          .header("authorization", startsWith("Bearer "))
          .json("$.vessel.draught", atMost(4.5))
          .answer(status(201));
      // end
      net.stub("GET https://tides.example/v1/tides").answer(json("{}"));

      String body = "{\"vessel\": {\"name\": \"Kittiwake\", \"draught\": \"4.2\"}}";
      String explanation =
          Http.call(
                  "POST",
                  BOOKINGS,
                  body,
                  "content-type: application/json",
                  "authorization: Bearer harbour-token")
              .body();

      Guide.page("explanations").assertOutput("unexpected", explanation);
    }
  }

  @Test
  void aFailedAssertion() {
    try (Cachette net = Cachette.open(LENIENT)) {
      Stub booking = net.stub("POST " + BOOKINGS).named("book a berth").answer(status(201));
      Http.call("POST", BOOKINGS, "{}");
      Http.call("PUT", BOOKINGS, "{}");

      var failure = assertThrows(AssertionFailedError.class, () -> booking.calls().assertCount(2));

      Guide.page("explanations").assertOutput("assertion", failure.getMessage());
    }
  }

  @Test
  void stubsThatNoCallUsed() {
    Cachette net = Cachette.open(LENIENT);
    net.stub("GET https://tides.example/v1/tides").named("tides, first").answer(status(200));
    net.stub("GET https://tides.example/v1/tides").named("tides, again").answer(status(200));
    assertEquals(200, Http.call("GET", "https://tides.example/v1/tides").statusCode());

    var failure = assertThrows(AssertionFailedError.class, net::close);

    Guide.page("explanations").assertOutput("unused", failure.getMessage());
  }
}
