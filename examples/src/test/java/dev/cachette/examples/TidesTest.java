// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.junit.InterceptHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The first test, as in the README. */
@InterceptHttp
class TidesTest {

  private final HttpClient client = HttpClient.newHttpClient(); // or any other

  @Test
  void readsTheTidesAfterAnError(Cachette net) throws Exception {
    net.stub("GET https://tides.example/v1/stations/{station}/tides")
        .query("day", "2031-04-02")
        .answer(status(503), json(Map.of("high", "04:10")));

    assertEquals(503, tides().statusCode());
    assertEquals("{\"high\":\"04:10\"}", tides().body());

    net.calls("GET https://tides.example/{+rest}").assertCount(2);
    assertEquals("marrow", net.calls().last().variable("station"));
  }

  private HttpResponse<String> tides() throws Exception {
    URI uri = URI.create("https://tides.example/v1/stations/marrow/tides?day=2031-04-02");
    return client.send(HttpRequest.newBuilder(uri).build(), BodyHandlers.ofString());
  }
}
