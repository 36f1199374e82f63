// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import com.sun.net.httpserver.HttpExchange;
import java.time.Duration;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicBoolean;

/** The berth service: busy at first, and only for callers with a token. */
final class Berths extends Service {

  private final Identity identity;
  private final AtomicBoolean busy = new AtomicBoolean(true);

  Berths(Identity identity, Duration time) {
    super("https://berths.example", time);
    this.identity = identity;
  }

  @Override
  Answer answer(HttpExchange call, String body) {
    if (!identity.knows(header(call, "authorization").orElse(""))) {
      return Answer.json(401, "{\"error\":\"invalid token\"}");
    }
    if (busy.getAndSet(false)) {
      return new Answer(503, "", "", Map.of("retry-after", "1"));
    }
    return Answer.json(
        201, "{\"berth\":\"B-12\",\"from\":\"04:10\",\"booking\":\"" + UUID.randomUUID() + "\"}");
  }
}
