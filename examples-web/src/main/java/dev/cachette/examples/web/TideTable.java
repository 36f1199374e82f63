// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;

/** Today's tides, read once when the application starts. */
@Component
class TideTable {

  private final List<String> high;

  TideTable(RestClient http, @Value("${tides.url:https://tides.example}") String url) {
    Tides today =
        http.get().uri(url + "/v1/stations/{station}/tides", "marrow").retrieve().body(Tides.class);
    this.high = today == null ? List.of() : today.high();
  }

  List<String> high() {
    return high;
  }

  private record Tides(List<String> high) {}
}
