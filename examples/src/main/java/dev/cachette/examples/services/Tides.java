// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import com.sun.net.httpserver.HttpExchange;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/** The tide service: JSON, for callers with the key. */
final class Tides extends Service {

  private final String key;

  Tides(String key, Duration time) {
    super("https://tides.example", time);
    this.key = key;
  }

  @Override
  Answer answer(HttpExchange call, String body) {
    if (!header(call, "x-api-key").equals(Optional.of(key))) {
      return Answer.json(401, "{\"error\":\"invalid key\"}");
    }
    return Answer.json(
        200,
        "{\"station\":\"Marrow Bay\",\"high\":[\"04:10\",\"16:35\"],\"computed\":\""
            + Instant.now()
            + "\"}");
  }
}
