// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import com.sun.net.httpserver.HttpExchange;
import java.time.Duration;
import java.util.Map;
import java.util.UUID;

/** The customs: SOAP 1.1. */
final class Customs extends Service {

  Customs(Duration time) {
    super("https://customs.example", time);
  }

  @Override
  Answer answer(HttpExchange call, String body) {
    return new Answer(
        200,
        "text/xml; charset=utf-8",
        """
        <soap:Envelope xmlns:soap="http://schemas.xmlsoap.org/soap/envelope/">
          <soap:Body><declared><number>C-%s</number></declared></soap:Body>
        </soap:Envelope>
        """
            .formatted(UUID.randomUUID().toString().substring(0, 8)),
        Map.of());
  }
}
