// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The events of one scope: a test, a class, or a session. */
final class ScopeEvents {

  private final JsonNode begun;

  /**
   * By number: one that was under way at the end of the scope is written again when it is answered.
   */
  private final Map<Long, CallEvent> calls = new LinkedHashMap<>();

  private Optional<JsonNode> ended = Optional.empty();
  private Optional<ArrayNode> shownCalls = Optional.empty();
  private boolean holdsOthers;

  ScopeEvents(JsonNode begun) {
    this.begun = begun;
  }

  void add(CallEvent call) {
    calls.put(call.number(), call);
    shownCalls = Optional.empty();
  }

  void end(JsonNode event) {
    ended = Optional.of(event);
    // Now, on the journal's thread, beside the tests: a build waits for what is left to the end.
    shownCalls = Optional.of(ShownCalls.of(this));
  }

  void holdOthers() {
    holdsOthers = true;
  }

  String name() {
    String atEnd = ended.map(it -> it.path("name").asText()).orElse("");
    String name = begun.path("name").asText(atEnd);
    return name.isEmpty() ? "outside of a test" : name;
  }

  Instant startedAt() {
    return at(begun);
  }

  /** Returns its calls, in order of arrival. */
  List<CallEvent> calls() {
    return calls.values().stream().sorted(Comparator.comparing(CallEvent::at)).toList();
  }

  /** Returns its calls as JSON. */
  ArrayNode shownCalls() {
    return shownCalls.orElseGet(() -> ShownCalls.of(this));
  }

  /** Returns what was known at its end; empty if it has none. */
  Optional<JsonNode> ended() {
    return ended;
  }

  /** Returns true if there is something to say of it: a class of tests seldom has calls itself. */
  boolean isToBeShown() {
    boolean hasMore =
        ended
            .filter(
                end ->
                    end.has("failure")
                        || !end.path("unexpected").isEmpty()
                        || !end.path("attempts").isEmpty())
            .isPresent();
    return !calls.isEmpty() || !holdsOthers || hasMore;
  }

  static Instant at(JsonNode event) {
    return Instant.EPOCH.plus(event.path("at").asLong(), ChronoUnit.MICROS);
  }
}
