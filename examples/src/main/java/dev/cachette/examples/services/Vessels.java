// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import com.sun.net.httpserver.HttpExchange;
import java.time.Duration;

/** The vessel registry: GraphQL. It has the Kittiwake only. */
final class Vessels extends Service {

  Vessels(Duration time) {
    super("https://vessels.example", time);
  }

  @Override
  Answer answer(HttpExchange call, String body) {
    String vessel =
        body.contains("Kittiwake") ? "{\"name\":\"Kittiwake\",\"draught\":4.2}" : "null";
    return Answer.json(200, "{\"data\":{\"vessel\":" + vessel + "}}");
  }
}
