// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.List;

/**
 * A call that was written.
 *
 * @param event what is known of it, without headers and bodies
 * @param at when it arrived
 * @param details the request, and the response if it has one, as JSON texts; empty if left out
 */
record CallEvent(JsonNode event, Instant at, List<String> details) {

  /** The names of the details. */
  static final List<String> NAMES = List.of("request", "response");

  long number() {
    return event.path("number").asLong();
  }
}
