// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The use of each cassette in a run. */
final class CassetteTotals {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private final Map<List<String>, ObjectNode> totals = new LinkedHashMap<>();

  /** Adds the cassettes of a scope at its end. */
  void add(String folder, JsonNode end) {
    for (JsonNode use : end.path("cassettes")) {
      List<String> key = List.of(folder, use.path("name").asText());
      ObjectNode before = totals.putIfAbsent(key, use.deepCopy());
      if (before != null) {
        ObjectNode total = use.deepCopy();
        total.put("replayed", Math.max(number(before, "replayed"), number(use, "replayed")));
        total.put("calls", number(before, "calls") + number(use, "calls"));
        total.put("recorded", number(before, "recorded") + number(use, "recorded"));
        total.put(
            "realMillis",
            Numbers.rounded(
                before.path("realMillis").asDouble() + use.path("realMillis").asDouble()));
        total.put("stale", before.path("stale").asBoolean() || use.path("stale").asBoolean());
        totals.put(key, total);
      }
    }
  }

  private static int number(JsonNode json, String name) {
    return json.path(name).asInt();
  }

  /** Returns how long the recorded services took for the calls that were replayed. */
  double realMillis() {
    return totals.values().stream().mapToDouble(it -> it.path("realMillis").asDouble()).sum();
  }

  ArrayNode json() {
    return NODES.arrayNode().addAll(totals.values());
  }
}
