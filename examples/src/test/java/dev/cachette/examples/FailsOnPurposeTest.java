// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.BerthClient;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.InterceptHttp;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/**
 * A test to be seen failing: the stub wants the draught as a text, and the desk sends a number. It
 * is run with {@code -Dfail.on.purpose=true} only.
 */
@InterceptHttp
@EnabledIfSystemProperty(named = "fail.on.purpose", matches = "true")
class FailsOnPurposeTest {

  @Test
  void booksABerth(Cachette net) {
    net.stub("POST https://berths.example/v1/bookings")
        .named("book a berth")
        .header("authorization", startsWith("Bearer "))
        .json("$.vessel.draught", pattern("[0-9.]+ m"))
        .answer(json(new Booking("B-12", "04:10")).status(201));
    net.stub("PUT https://berths.example/v1/bookings/{id}")
        .named("change a booking")
        .answer(json(new Booking("B-12", "16:35")));

    BerthClient berths = new BerthClient("harbour-token");

    // The code under test swallows nothing here, but the test would fail even if it did.
    assertThrows(HarbourException.class, () -> berths.book(new Vessel("Kittiwake", 4.2), "04:10"));
  }
}
