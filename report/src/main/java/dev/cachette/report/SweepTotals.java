// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The fault sweeps, with their runs; one that was made again counts once. */
final class SweepTotals {

  private static final List<String> MEMBERS =
      List.of("id", "number", "call", "fault", "detail", "outcome", "repeats", "findings");

  private final Map<List<String>, Map<String, ObjectNode>> sweeps = new LinkedHashMap<>();

  /** Adds a run of a JVM in a folder. */
  void add(String folder, JsonNode event) {
    ObjectNode run = JsonNodeFactory.instance.objectNode();
    MEMBERS.forEach(member -> run.set(member, event.path(member)));
    sweeps
        .computeIfAbsent(
            List.of(folder, event.path("sweep").asText()), unused -> new LinkedHashMap<>())
        .put(event.path("id").asText(), run);
  }

  ArrayNode json() {
    ArrayNode json = JsonNodeFactory.instance.arrayNode();
    sweeps.forEach(
        (key, runs) ->
            json.addObject().put("name", key.get(1)).putArray("runs").addAll(runs.values()));
    return json;
  }
}
