// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.util.Map;
import java.util.TreeMap;

/** Which faults each service had. */
final class FaultTotals {

  private static final String LET_THROUGH = "let through";

  private final Map<String, Map<String, Integer>> services = new TreeMap<>();

  /** Adds the fault of a call, if it met one. */
  void add(JsonNode call) {
    if (call.has("fault")) {
      count(host(call.path("url").asText()), call.path("fault").asText(), 1);
    }
  }

  /** Adds the faults before there was a call. */
  void addAttempts(JsonNode end) {
    for (JsonNode attempt : end.path("attempts")) {
      String outcome = attempt.path("outcome").asText();
      if (!outcome.startsWith(LET_THROUGH)) {
        count(
            attempt.path("service").asText().replaceFirst(":(443|80)$", ""),
            outcome,
            attempt.path("times").asInt());
      }
    }
  }

  private void count(String service, String fault, int times) {
    services.computeIfAbsent(service, it -> new TreeMap<>()).merge(fault, times, Integer::sum);
  }

  private static String host(String url) {
    try {
      URI uri = URI.create(url);
      String host = String.valueOf(uri.getHost());
      return uri.getPort() < 0 ? host : host + ":" + uri.getPort();
    } catch (IllegalArgumentException odd) {
      return url;
    }
  }

  ArrayNode json() {
    ArrayNode json = JsonNodeFactory.instance.arrayNode();
    services.forEach(
        (service, faults) -> {
          ObjectNode one = json.addObject().put("service", service);
          ArrayNode all = one.putArray("faults");
          faults.forEach((fault, times) -> all.addObject().put("fault", fault).put("times", times));
        });
    return json;
  }
}
