// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.BerthClient;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.InterceptHttp;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The snippets of docs/guide/openapi.md; GuideTest compares them with the page. */
@InterceptHttp
class OpenapiGuideTest {

  private static final Vessel KITTIWAKE = new Vessel("Kittiwake", 4.2);

  private final BerthClient berths = new BerthClient("harbour-token");

  // snippet describe
  @BeforeEach
  void describe(Cachette net) {
    net.describedBy("https://berths.example", "berths.openapi.yaml");
  }

  // end

  @Test
  void aStubOfTheWrongShapeFails(Cachette net) {
    // snippet impossible
    net.stub("POST https://berths.example/v1/bookings")
        .named("book a berth")
        .answer(json("{\"berth\":\"B 12\",\"since\":\"04:10\"}").status(201));
    // end
    assertThrows(HarbourException.class, () -> berths.book(KITTIWAKE, "04:10"));
    AssertionError failed = assertThrows(AssertionError.class, net::reset);

    Guide.page("openapi").assertOutput("impossible", failed.getMessage());
  }

  @Test
  void aRequestOfTheWrongShapeFails(Cachette net) {
    net.stub("POST https://berths.example/v1/bookings")
        .named("book a berth")
        .answer(json("{\"berth\":\"B-12\",\"from\":\"04:10\"}").status(201));
    assertThrows(HarbourException.class, () -> berths.book(new Vessel("Kittiwake", 42), "4.10 am"));
    AssertionError failed = assertThrows(AssertionError.class, net::reset);

    Guide.page("openapi").assertOutput("refused", failed.getMessage());
  }

  @Test
  void examplesAnswer(Cachette net) {
    // snippet examples
    net.describedBy("https://berths.example", "berths.openapi.yaml").answeringFromExamples();

    Booking booked = berths.book(KITTIWAKE, "04:10");

    assertEquals("B-12", booked.berth());
    // end
  }

  @Test
  void intendedViolationsAreUnchecked(Cachette net) {
    // snippet unchecked
    net.stub("POST https://berths.example/v1/bookings")
        .answer(status(503), text("<h1>Maintenance</h1>").status(418))
        .unchecked();
    // end
    assertThrows(HarbourException.class, () -> berths.book(KITTIWAKE, "04:10"));
  }
}
