package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What happened in one scope: a test, a class, or a session. */
final class ScopeEvents {

  private final JsonNode begun;
  private final List<JsonNode> calls = new ArrayList<>();
  private Optional<JsonNode> ended = Optional.empty();
  private boolean holdsOthers;

  ScopeEvents(JsonNode begun) {
    this.begun = begun;
  }

  void add(JsonNode call) {
    calls.add(call);
  }

  void end(JsonNode event) {
    ended = Optional.of(event);
  }

  void holdOthers() {
    holdsOthers = true;
  }

  String name() {
    String atEnd = ended.map(it -> it.path("name").asText()).orElse("");
    return begun.path("name").asText(atEnd);
  }

  Instant startedAt() {
    return at(begun);
  }

  /** Returns its calls, in order of arrival. */
  List<JsonNode> calls() {
    calls.sort((one, other) -> at(one).compareTo(at(other)));
    return calls;
  }

  /** Returns what was known at its end; empty if it has none. */
  Optional<JsonNode> ended() {
    return ended;
  }

  /** Returns true if there is something to say of it: a class of tests seldom has calls itself. */
  boolean isToBeShown() {
    boolean troubled =
        ended.isEmpty()
            || ended.get().has("failure")
            || !ended.get().path("unexpected").isEmpty()
            || !ended.get().path("attempts").isEmpty();
    return !calls.isEmpty() || !holdsOthers || troubled;
  }

  static Instant at(JsonNode event) {
    return Instant.parse(event.path("at").asText());
  }
}
