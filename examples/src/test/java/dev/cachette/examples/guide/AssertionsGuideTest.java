// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.calls.Call;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.junit.InterceptHttp;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

/** The snippets of docs/guide/assertions.md; GuideTest compares them with the page. */
@InterceptHttp
class AssertionsGuideTest {

  private static final String TIDES = "GET https://tides.example/{+rest}";
  private static final String BOOKINGS = "POST https://berths.example/v1/bookings";

  @Test
  void assertions(Cachette net) {
    Stub tides = net.stub(TIDES).answer(status(204));
    Stub booking = net.stub(BOOKINGS).answer(status(201));
    Http.call("GET", "https://tides.example/v1/tides");
    Http.call(
        "POST",
        "https://berths.example/v1/bookings",
        "{\"berth\": \"B-12\", \"from\": \"04:10\"}",
        "x-desk: north");

    // snippet counts
    net.calls().assertCount(2);
    net.calls(TIDES).assertAtLeast(1).assertAtMost(3);
    net.calls(BOOKINGS).header("x-desk", "north").json("$.berth", "B-12").assertCount(1);
    net.calls("DELETE /{+rest}").assertNone();
    booking.calls().assertCount(1);
    // end

    // snippet order
    net.calls().assertInOrder(TIDES, BOOKINGS);
    net.calls().assertExactlyInOrder(tides, booking);
    net.calls(TIDES).or(BOOKINGS).assertNoOthers();
    net.calls().assertAnswered();
    // end

    // snippet reading
    Call call = net.calls(BOOKINGS).only();

    assertEquals("north", call.header("x-desk").orElseThrow());
    assertEquals("04:10", call.json("$.from").asText());
    assertEquals(new Booking("B-12", "04:10"), call.as(Booking.class));
    assertEquals(201, call.response().status());
    assertEquals("v1/tides", net.calls(TIDES).first().variable("rest"));
    // end

    // snippet iterable
    List<String> methods = net.calls().stream().map(Call::method).toList();

    assertEquals(List.of("GET", "POST"), methods);
    // end

    // snippet await
    net.calls(BOOKINGS).await(1, Duration.ofSeconds(5));
    // end
  }
}
