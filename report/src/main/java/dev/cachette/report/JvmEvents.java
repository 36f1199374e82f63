package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * What happened in one JVM.
 *
 * @param jvm what is known of it
 * @param endedAt when it ended in order; empty if it crashed, or still runs
 * @param scopes its tests, classes and sessions, in order
 * @param stubs its stubs, by number
 * @param descriptions its API descriptions
 * @param lost how many events could not be written
 */
record JvmEvents(
    JsonNode jvm,
    Optional<Instant> endedAt,
    List<ScopeEvents> scopes,
    Map<Integer, JsonNode> stubs,
    List<JsonNode> descriptions,
    int lost) {

  static JvmEvents of(List<JsonNode> events) {
    Map<Long, ScopeEvents> scopes = new LinkedHashMap<>();
    Set<Long> open = new TreeSet<>();
    Map<Integer, JsonNode> stubs = new LinkedHashMap<>();
    List<JsonNode> descriptions = new ArrayList<>();
    JsonNode jvm = null;
    Optional<Instant> endedAt = Optional.empty();
    int lost = 0;
    for (JsonNode event : events) {
      long test = event.path("test").asLong();
      switch (event.path("event").asText()) {
        case "jvm" -> jvm = event;
        case "over" -> endedAt = Optional.of(ScopeEvents.at(event));
        case "stub" -> stubs.put(event.path("id").asInt(), event);
        case "description" -> descriptions.add(event);
        case "begun" -> {
          open.forEach(outer -> scopes.get(outer).holdOthers());
          open.add(test);
          scopes.put(test, new ScopeEvents(event));
        }
        case "call" -> scopes.computeIfAbsent(test, it -> new ScopeEvents(event)).add(event);
        case "ended" -> {
          open.remove(test);
          scopes.computeIfAbsent(test, it -> new ScopeEvents(event)).end(event);
        }
        default -> lost++;
      }
    }
    return new JvmEvents(
        jvm, endedAt, List.copyOf(scopes.values()), stubs, List.copyOf(descriptions), lost);
  }

  /** Returns the folder that it ran in. */
  String folder() {
    return jvm.path("folder").asText();
  }

  Instant startedAt() {
    return Instant.parse(jvm.path("startedAt").asText());
  }

  /** Returns true if it ran after another one, for the same module. */
  boolean isLaterThan(JvmEvents other) {
    return folder().equals(other.folder())
        && other.endedAt.filter(end -> !startedAt().isBefore(end)).isPresent();
  }
}
