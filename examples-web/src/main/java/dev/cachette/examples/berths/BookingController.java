// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.berths;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.net.URI;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** Books berths for vessels. */
@RestController
class BookingController {

  private final Berths berths;
  private final AtomicInteger number = new AtomicInteger();

  BookingController(Berths berths) {
    this.berths = berths;
  }

  @PostMapping("/v1/bookings")
  ResponseEntity<?> book(
      @RequestHeader(name = "authorization", required = false) String token,
      @RequestBody Wish wish) {
    if (!"Bearer valid".equals(token)) {
      return problem(HttpStatus.UNAUTHORIZED, "invalid token");
    }
    Optional<String> berth = berths.take();
    if (berth.isEmpty()) {
      return problem(HttpStatus.CONFLICT, "no berth");
    }
    return ResponseEntity.created(URI.create("/v1/bookings/" + number.incrementAndGet()))
        .body(new Booking(berth.get(), wish.from(), null, "by the north quay"));
  }

  private static ResponseEntity<ProblemDetail> problem(HttpStatus status, String title) {
    ProblemDetail problem = ProblemDetail.forStatus(status);
    problem.setTitle(title);
    return ResponseEntity.of(problem).build();
  }

  /** A booking; the harbour desk does not know the way. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  private record Booking(String berth, String from, String remark, String way) {}

  private record Wish(Vessel vessel, String from) {}

  private record Vessel(String name, double draught) {}
}
