// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentSkipListMap;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.client.HttpClientErrorException;
import org.springframework.web.client.HttpServerErrorException;
import org.springframework.web.client.RestClient;
import org.springframework.web.server.ResponseStatusException;

/** Plans the arrival of vessels. */
@RestController
class ArrivalController {

  private static final int MOST_TUGS = 4;

  private final RestClient http;
  private final TideTable tides;
  private final String berths;
  private final Map<String, Arrival> planned = new ConcurrentSkipListMap<>();

  ArrivalController(
      RestClient http,
      TideTable tides,
      @Value("${berths.url:https://berths.example}") String berths) {
    this.http = http;
    this.tides = tides;
    this.berths = berths;
  }

  @PostMapping("/arrivals")
  @ResponseStatus(HttpStatus.CREATED)
  Arrival arrive(
      @RequestParam("vessel") String vessel,
      @RequestParam(name = "tugs", defaultValue = "0") int tugs) {
    if (tugs > MOST_TUGS) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "there are only four tugs");
    }
    String id = UUID.randomUUID().toString();
    Arrival arrival = new Arrival(id, vessel, berth(vessel, id), tugs, tides.high(), Instant.now());
    planned.put(id, arrival);
    return arrival;
  }

  private String berth(String vessel, String id) {
    try {
      Booking booked =
          http.post()
              .uri(berths + "/v1/bookings")
              .body(Map.of("vessel", vessel, "arrival", id))
              .retrieve()
              .body(Booking.class);
      return booked == null ? "none" : booked.berth();
    } catch (HttpServerErrorException busy) {
      throw new ResponseStatusException(HttpStatus.SERVICE_UNAVAILABLE, "no berth available", busy);
    } catch (HttpClientErrorException refused) {
      throw new ResponseStatusException(HttpStatus.CONFLICT, "the berth was refused", refused);
    }
  }

  @GetMapping("/arrivals")
  Collection<Arrival> arrivals() {
    return planned.values();
  }

  @GetMapping("/arrivals/{id}")
  Arrival arrival(@PathVariable("id") String id) {
    return known(planned.get(id));
  }

  @DeleteMapping("/arrivals/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void depart(@PathVariable("id") String id) {
    Arrival arrival = known(planned.remove(id));
    http.delete()
        .uri(berths + "/v1/berths/{berth}/bookings/{vessel}", arrival.berth(), arrival.vessel())
        .retrieve()
        .toBodilessEntity();
  }

  @DeleteMapping("/arrivals")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void clear() {
    planned.clear();
  }

  private static Arrival known(Arrival arrival) {
    if (arrival == null) {
      throw new ResponseStatusException(HttpStatus.NOT_FOUND, "there is no such arrival");
    }
    return arrival;
  }

  record Arrival(
      String id, String vessel, String berth, int tugs, List<String> high, Instant planned) {}

  private record Booking(String berth) {}
}
