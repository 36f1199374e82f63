// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourDesk;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Tides;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.InterceptHttp;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** A baseline for the class, which one test overrides without touching the others. */
@InterceptHttp
class HarbourDeskTest {

  private static final String TIDES = "GET https://tides.example/v1/stations/{station}/tides";
  private static final String BOOKINGS = "POST https://berths.example/v1/bookings";
  private static final LocalDate DAY = LocalDate.of(2031, 4, 2);
  private static final Vessel KITTIWAKE = new Vessel("Kittiwake", 4.2);

  private final HarbourDesk desk = new HarbourDesk("harbour-token");

  @BeforeAll
  static void harbour(Cachette net) {
    net.stub(TIDES).answer(json(new Tides("Marrow Bay", List.of("04:10", "16:35"))));
    net.stub(BOOKINGS).answer(json(new Booking("B-12", "04:10")).status(201));
  }

  @Test
  void booksABerthForTheFirstHighWater(Cachette net) {
    Booking booked = desk.planArrival(KITTIWAKE, DAY);

    assertEquals(new Booking("B-12", "04:10"), booked);
    net.calls().assertCount(2);
    assertEquals("04:10", net.calls(BOOKINGS).only().json().at("/from").asText());
  }

  @Test
  void booksNothingWithoutHighWater(Cachette net) {
    net.stub(TIDES).answer(json(new Tides("Marrow Bay", List.of())));

    assertThrows(HarbourException.class, () -> desk.planArrival(KITTIWAKE, DAY));

    net.calls(BOOKINGS).assertNone();
  }
}
