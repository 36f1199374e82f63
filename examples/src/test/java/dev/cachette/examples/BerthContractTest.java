// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.contract.ContractRecording;
import dev.cachette.contract.Contracts;
import dev.cachette.examples.harbour.BerthClient;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.InterceptHttp;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** The contract of the harbour desk with the berth service, written by these tests. */
// snippet consumer
@InterceptHttp
class BerthContractTest {

  private static ContractRecording contract;

  private final BerthClient berths = new BerthClient("harbour-token");

  @BeforeAll
  static void contract(Cachette net) {
    contract = Contracts.record(net, "harbour-desk", "berths", "https://berths.example");
  }

  @Test
  void booksABerth(Cachette net) {
    Stub booking =
        net.stub("POST https://berths.example/v1/bookings")
            .named("book a berth")
            .header("authorization", startsWith("Bearer "))
            .answer(
                json(Map.of("berth", "B-12", "from", "04:10", "remark", "north side"))
                    .status(201)
                    .header("location", "/v1/bookings/7"));
    contract
        .clause(booking)
        .given("a berth is free", Map.of("berth", "B-12"))
        .pattern("$.from", "\\d\\d:\\d\\d")
        .optional("$.remark")
        .readBy(body -> new ObjectMapper().readTree(body).required("berth"));

    assertEquals("B-12", berths.book(new Vessel("Kittiwake", 4.2), "04:10").berth());
  }

  // end

  @Test
  void doesNotAskAgainWhenTheBerthsAreTaken(Cachette net) {
    Stub taken =
        net.stub("POST https://berths.example/v1/bookings")
            .named("no berth is left")
            .answer(problem(409, "no berth", Map.of()));
    contract.clause(taken).given("all berths are taken");

    assertThrows(HarbourException.class, () -> berths.book(new Vessel("Tern", 3.1), "16:35"));
    taken.calls().assertCount(1);
  }

  /** A busy service is none of the contract: it promises nothing about its failures. */
  @Test
  void asksAgainWhileTheServiceIsBusy(Cachette net) {
    Stub booking =
        net.stub("POST https://berths.example/v1/bookings")
            .named("book a berth at last")
            .answer(status(503), json(new Booking("B-12", "04:10")).status(201));
    contract.clause(booking).given("a berth is free", Map.of("berth", "B-12"));

    berths.book(new Vessel("Kittiwake", 4.2), "04:10");

    booking.calls().assertCount(2);
  }
}
