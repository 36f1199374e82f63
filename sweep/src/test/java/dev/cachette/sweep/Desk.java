// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;

/** A small harbour desk, whose every weakness can be switched on. */
class Desk {

  /** Thrown if an arrival cannot be planned; its message names the service. */
  static final class ArrivalFailed extends Exception {

    private static final long serialVersionUID = 1;

    ArrivalFailed(String message, Throwable cause) {
      super(message, cause);
    }
  }

  record Plan(String high, String berth) {}

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final Duration CONNECT_TIMEOUT = Duration.ofMinutes(1);
  private static final Duration TIMEOUT = Duration.ofMinutes(1);

  private final HttpClient http = HttpClient.newBuilder().connectTimeout(CONNECT_TIMEOUT).build();

  /** Plans an arrival: reads the tides, books a berth, announces the vessel. */
  Plan plan(String vessel) throws Exception {
    String high = tides();
    String berth = book(vessel);
    try {
      announce(vessel, berth);
    } catch (ArrivalFailed failed) {
      cancel(berth);
      throw failed;
    }
    return new Plan(high, berth);
  }

  String tides() throws Exception {
    for (int attempt = 1; ; attempt++) {
      try {
        return text(get("https://tides.example/v1/today"), "high");
      } catch (ArrivalFailed failed) {
        if (attempt == 2) {
          throw failed;
        }
      }
    }
  }

  String book(String vessel) throws Exception {
    String body = "{\"vessel\":\"" + vessel + "\"}";
    HttpResponse<String> response = post("https://berths.example/v1/bookings", body);
    if (response.statusCode() == 503 || response.statusCode() == 429) {
      response = post("https://berths.example/v1/bookings", body);
    }
    return text(response, "berth");
  }

  void announce(String vessel, String berth) throws Exception {
    HttpResponse<String> response =
        post("https://gate.example/v1/announcements", "{\"berth\":\"" + berth + "\"}");
    if (response.statusCode() != 204) {
      throw new ArrivalFailed("gate.example answered " + response.statusCode(), null);
    }
  }

  void cancel(String berth) throws Exception {
    send(request("https://berths.example/v1/bookings/" + berth).DELETE());
  }

  HttpResponse<String> get(String url) throws Exception {
    return send(request(url).GET());
  }

  HttpResponse<String> post(String url, String body) throws Exception {
    return send(
        request(url)
            .header("content-type", "application/json")
            .POST(BodyPublishers.ofString(body)));
  }

  HttpRequest.Builder request(String url) {
    return HttpRequest.newBuilder(URI.create(url)).timeout(TIMEOUT);
  }

  HttpResponse<String> send(HttpRequest.Builder request) throws Exception {
    HttpRequest ready = request.build();
    try {
      return http.send(ready, BodyHandlers.ofString());
    } catch (IOException failed) {
      throw new ArrivalFailed(ready.uri().getHost() + " did not answer", failed);
    }
  }

  /** Returns a member of a JSON response, if it is right. */
  String text(HttpResponse<String> response, String member) throws Exception {
    String host = response.uri().getHost();
    if (response.statusCode() / 100 != 2) {
      throw new ArrivalFailed(host + " answered " + response.statusCode(), null);
    }
    try {
      JsonNode value = JSON.readTree(response.body()).path(member);
      if (!value.isTextual()) {
        throw new ArrivalFailed(host + " sent no " + member, null);
      }
      return value.textValue();
    } catch (IOException malformed) {
      throw new ArrivalFailed(host + " sent something else than JSON", malformed);
    }
  }
}
