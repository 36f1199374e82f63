// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.client.HttpServerErrorException;
import org.springframework.web.client.RestClient;
import org.springframework.web.server.ResponseStatusException;

/** Plans the arrival of vessels. */
@RestController
class ArrivalController {

  private final RestClient http;
  private final TideTable tides;

  ArrivalController(RestClient http, TideTable tides) {
    this.http = http;
    this.tides = tides;
  }

  @PostMapping("/arrivals")
  @ResponseStatus(HttpStatus.CREATED)
  Arrival arrive(@RequestParam("vessel") String vessel) {
    try {
      Booking booked =
          http.post()
              .uri("https://berths.example/v1/bookings")
              .body(Map.of("vessel", vessel))
              .retrieve()
              .body(Booking.class);
      return new Arrival(vessel, booked == null ? "none" : booked.berth(), tides.high());
    } catch (HttpServerErrorException busy) {
      throw new ResponseStatusException(HttpStatus.SERVICE_UNAVAILABLE, "no berth available", busy);
    }
  }

  record Arrival(String vessel, String berth, List<String> high) {}

  private record Booking(String berth) {}
}
