// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.calls.Call;
import dev.cachette.examples.harbour.BerthClient;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.InterceptHttp;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Answers in turn: a retry, from the first refusal to the booking. */
@InterceptHttp
class BerthClientTest {

  private static final String BOOKINGS = "POST https://berths.example/v1/bookings";
  private static final Vessel KITTIWAKE = new Vessel("Kittiwake", 4.2);

  private final BerthClient berths = new BerthClient("harbour-token");

  @Test
  void asksAgainWhileTheServiceIsBusy(Cachette net) {
    Stub booking =
        net.stub(BOOKINGS)
            .named("book a berth")
            .answer(
                status(503).header("retry-after", "1"),
                json(new Booking("B-12", "04:10")).status(201));

    Booking booked = berths.book(KITTIWAKE, "04:10");

    assertEquals("B-12", booked.berth());
    booking.calls().assertCount(2);
    Call last = booking.calls().last();
    assertEquals("Kittiwake", last.json().at("/vessel/name").asText());
    assertEquals(Optional.of("Bearer harbour-token"), last.header("Authorization"));
  }

  @Test
  void givesUpAfterThreeAttempts(Cachette net) {
    net.stub(BOOKINGS).answer(status(503));

    assertThrows(HarbourException.class, () -> berths.book(KITTIWAKE, "04:10"));

    net.calls(BOOKINGS).assertCount(3);
  }

  @Test
  void doesNotAskAgainWhenTheBerthsAreTaken(Cachette net) {
    net.stub(BOOKINGS).answer(status(409));

    assertThrows(HarbourException.class, () -> berths.book(KITTIWAKE, "04:10"));

    net.calls(BOOKINGS).assertCount(1);
  }
}
