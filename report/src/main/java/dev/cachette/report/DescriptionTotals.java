// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Counts the documented responses that calls got: by operation, status and media type. */
final class DescriptionTotals {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final int HUNDRED = 100;

  private final Map<List<String>, Total> totals = new LinkedHashMap<>();

  /** The counts of one API description. */
  private static final class Total {
    private final JsonNode description;
    private final Map<String, OperationTotal> operations = new LinkedHashMap<>();
    private int strange;

    Total(JsonNode description) {
      this.description = description;
      for (JsonNode operation : description.path("operations")) {
        operations.put(operation.path("name").asText(), new OperationTotal(operation));
      }
    }

    void count(JsonNode call) {
      OperationTotal operation = operations.get(call.path("described").path("operation").asText());
      if (operation == null) {
        strange++;
      } else {
        operation.count(call);
      }
    }

    ObjectNode json() {
      ObjectNode json = NODES.objectNode();
      json.set("name", description.path("name"));
      json.set("origin", description.path("origin"));
      ArrayNode all = json.putArray("operations");
      operations.values().forEach(operation -> all.add(operation.json()));
      List<JsonNode> cells = new ArrayList<>();
      all.forEach(operation -> operation.path("statuses").forEach(cells::add));
      long met = cells.stream().filter(cell -> cell.path("calls").asInt() > 0).count();
      json.put("documented", cells.size());
      json.put("met", met);
      json.put("percent", cells.isEmpty() ? HUNDRED : met * HUNDRED / cells.size());
      json.put("callsOfNoOperation", strange);
      return json;
    }
  }

  /** Adds an API description, of which a run may say more than once that it has it. */
  void add(JsonNode description) {
    totals.computeIfAbsent(key(description), it -> new Total(description));
  }

  private static List<String> key(JsonNode description) {
    return List.of(description.path("origin").asText(), description.path("name").asText());
  }

  /** Counts a call, if it was for a service with an API description. */
  void count(JsonNode call) {
    Total total = totals.get(key(call.path("described")));
    if (total != null) {
      total.count(call);
    }
  }

  ArrayNode json() {
    ArrayNode json = NODES.arrayNode();
    totals.values().forEach(total -> json.add(total.json()));
    return json;
  }
}
