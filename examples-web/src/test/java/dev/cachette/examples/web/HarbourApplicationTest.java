// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.junit.InterceptHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;

/** A whole application, whose call at its start is answered as all others are. */
@InterceptHttp
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class HarbourApplicationTest {

  // snippet boot
  @BeforeAll
  static void harbour(Cachette net) {
    net.stub("GET https://tides.example/v1/stations/marrow/tides")
        .answer(json("{\"high\": [\"04:10\", \"16:35\"]}"));
  }

  @Test
  void aVesselGetsItsBerth(Cachette net, @LocalServerPort int port) throws Exception {
    net.stub("POST https://berths.example/v1/bookings").answer(json("{\"berth\": \"B-12\"}"));

    HttpResponse<String> arrival = post("http://localhost:" + port + "/arrivals?vessel=Kittiwake");

    assertEquals(201, arrival.statusCode());
    assertTrue(arrival.body().contains("\"berth\":\"B-12\""), arrival::body);
    assertTrue(arrival.body().contains("\"high\":[\"04:10\",\"16:35\"]"), arrival::body);
    assertEquals("Kittiwake", net.calls().only().json("$.vessel").asText());
  }

  // end

  @Test
  void aBusyDeskIsReportedToTheCaller(Cachette net, @LocalServerPort int port) throws Exception {
    net.stub("POST https://berths.example/v1/bookings").answer(status(503));

    assertEquals(503, post("http://localhost:" + port + "/arrivals?vessel=Petrel").statusCode());
  }

  private static HttpResponse<String> post(String url) throws Exception {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(url)).POST(HttpRequest.BodyPublishers.noBody()).build();
    return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
  }
}
