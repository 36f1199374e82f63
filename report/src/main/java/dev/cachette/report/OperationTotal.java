// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Counts the documented responses of one operation that calls got. */
final class OperationTotal {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private final JsonNode operation;
  private final Map<String, Map<String, Integer>> documented = new LinkedHashMap<>();
  private final Map<String, Integer> others = new TreeMap<>();

  OperationTotal(JsonNode operation) {
    this.operation = operation;
    operation
        .path("statuses")
        .properties()
        .forEach(
            status -> {
              Map<String, Integer> types = new LinkedHashMap<>();
              status.getValue().forEach(type -> types.put(type.asText(), 0));
              if (types.isEmpty()) {
                types.put("", 0);
              }
              documented.put(status.getKey(), types);
            });
  }

  void count(JsonNode call) {
    String status = call.path("answer").asText();
    String type = call.path("mediaType").asText();
    Map<String, Integer> types = entry(status);
    Optional<String> met =
        types == null
            ? Optional.empty()
            : types.keySet().stream().filter(documented -> covers(documented, type)).findFirst();
    if (met.isPresent()) {
      types.merge(met.get(), 1, Integer::sum);
    } else {
      others.merge(types == null ? status : (status + " " + type).strip(), 1, Integer::sum);
    }
  }

  private Map<String, Integer> entry(String status) {
    Map<String, Integer> range = status.isEmpty() ? null : documented.get(status.charAt(0) + "XX");
    return Optional.ofNullable(documented.get(status))
        .or(() -> Optional.ofNullable(range))
        .or(() -> Optional.ofNullable(documented.get("default")))
        .orElse(null);
  }

  /** Returns true if a documented media type, or range of them, is for this one. */
  private static boolean covers(String documented, String type) {
    String range = documented.toLowerCase(Locale.ROOT).replaceFirst("\\s*;.*", "");
    return range.isEmpty()
        || range.equals("*/*")
        || range.equals(type)
        || range.endsWith("/*") && type.startsWith(range.substring(0, range.length() - 1));
  }

  ObjectNode json() {
    ObjectNode json = NODES.objectNode();
    json.set("operation", operation.path("name"));
    json.set("place", operation.path("place"));
    ArrayNode statuses = json.putArray("statuses");
    documented.forEach(
        (status, types) ->
            types.forEach(
                (type, calls) -> {
                  ObjectNode one = statuses.addObject().put("status", status);
                  if (!type.isEmpty()) {
                    one.put("mediaType", type);
                  }
                  one.put("calls", calls);
                }));
    ArrayNode undocumented = json.putArray("undocumented");
    others.forEach(
        (status, calls) -> undocumented.addObject().put("answer", status).put("calls", calls));
    return json;
  }
}
