// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** The events of one JVM. */
final class JvmEvents {

  private final Map<Long, ScopeEvents> scopes = new LinkedHashMap<>();
  private final Set<Long> open = new TreeSet<>();
  private final Map<Integer, JsonNode> stubs = new LinkedHashMap<>();
  private final List<JsonNode> descriptions = new ArrayList<>();
  private final List<JsonNode> swept = new ArrayList<>();
  private JsonNode jvm = MissingNode.getInstance();
  private Optional<Instant> endedAt = Optional.empty();
  private int lost;

  /**
   * Adds what happened next.
   *
   * @param details the messages of a call, as JSON texts
   */
  void add(JsonNode event, List<String> details) {
    long test = event.path("test").asLong();
    switch (event.path("event").asText()) {
      case "jvm" -> jvm = event;
      case "over" -> endedAt = Optional.of(ScopeEvents.at(event));
      case "stub" -> stubs.put(event.path("id").asInt(), event);
      case "description" -> descriptions.add(event);
      case "swept" -> swept.add(event);
      case "begun" -> {
        open.forEach(outer -> scopes.get(outer).holdOthers());
        open.add(test);
        scopes.put(test, new ScopeEvents(event));
      }
      case "call" -> scope(test, event).add(new CallEvent(event, ScopeEvents.at(event), details));
      case "ended" -> {
        open.remove(test);
        scope(test, event).end(event);
      }
      default -> lost++;
    }
  }

  private ScopeEvents scope(long test, JsonNode event) {
    return scopes.computeIfAbsent(test, it -> new ScopeEvents(event));
  }

  /** Returns what is known of the JVM; nothing if its file does not begin with that. */
  JsonNode jvm() {
    return jvm;
  }

  /** Returns when it ended in order; empty if it crashed, or still runs. */
  Optional<Instant> endedAt() {
    return endedAt;
  }

  /** Returns its tests, classes and sessions, in order. */
  Collection<ScopeEvents> scopes() {
    return scopes.values();
  }

  /** Returns its stubs, by number. */
  Map<Integer, JsonNode> stubs() {
    return stubs;
  }

  /** Returns the runs of its fault sweeps. */
  List<JsonNode> swept() {
    return swept;
  }

  List<JsonNode> descriptions() {
    return descriptions;
  }

  /** Returns how many events could not be written. */
  int lost() {
    return lost;
  }

  /** Returns the folder that it ran in. */
  String folder() {
    return jvm.path("folder").asText();
  }

  Instant startedAt() {
    return ScopeEvents.at(jvm);
  }

  /** Returns the names of the tests that JVMs have run after this one, in the same folder. */
  Set<String> namesInLater(Collection<JvmEvents> all) {
    Set<String> names = new HashSet<>();
    for (JvmEvents other : all) {
      if (other != this && other.isLaterThan(this)) {
        other.scopes().forEach(scope -> names.add(scope.name()));
      }
    }
    return names;
  }

  /** Returns true if each of its tests has run again. */
  boolean isRepeatedBy(Collection<JvmEvents> all) {
    return !scopes.isEmpty()
        && namesInLater(all).containsAll(scopes.values().stream().map(ScopeEvents::name).toList());
  }

  private boolean isLaterThan(JvmEvents other) {
    return folder().equals(other.folder())
        && other.endedAt.filter(end -> !startedAt().isBefore(end)).isPresent();
  }
}
