// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import dev.cachette.InForce;
import dev.cachette.calls.Call;
import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Cassettes with their exchanges, and API descriptions with what was called of them, as JSON. */
final class Sources {

  /** More exchanges of a cassette are not listed. */
  private static final int MOST_EXCHANGES = 1_000;

  private Sources() {}

  static Map<String, Object> of(InForce inForce, List<Call> calls) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("cassettes", inForce.cassettes().stream().map(Sources::cassette).toList());
    json.put(
        "descriptions", inForce.descriptions().stream().map(it -> description(it, calls)).toList());
    return json;
  }

  private static Map<String, Object> cassette(InForce.ActiveRecording active) {
    CassetteContent recorded = active.recorded();
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("name", recorded.name());
    json.put("mode", active.mode().name().toLowerCase(Locale.ROOT));
    recorded.recordedAt().ifPresent(at -> json.put("recordedAt", at.toString()));
    json.put("count", recorded.exchanges().size());
    List<Map<String, Object>> exchanges = new ArrayList<>();
    for (Exchange each : recorded.exchanges()) {
      if (exchanges.size() == MOST_EXCHANGES) {
        break;
      }
      Map<String, Object> one = new LinkedHashMap<>();
      one.put(
          "request", each.request().method() + " " + Masking.url(each.request().uri().toString()));
      one.put("outcome", each.outcome());
      exchanges.add(one);
    }
    json.put("exchanges", exchanges);
    return json;
  }

  private static Map<String, Object> description(InForce.ApiDescription service, List<Call> calls) {
    Map<StubReference, Map<String, Integer>> met = new HashMap<>();
    int strange = 0;
    for (Call call : calls) {
      boolean isOfService = call.request().uri().origin().equals(service.origin());
      StubReference operation = service.operation(call.request()).orElse(null);
      if (operation != null) {
        met.computeIfAbsent(operation, it -> new LinkedHashMap<>())
            .merge(call.outcome(), 1, Integer::sum);
      } else if (isOfService) {
        strange++;
      }
    }
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("origin", service.origin());
    json.put("name", service.name());
    json.put("callsOfNoOperation", strange);
    json.put(
        "operations",
        service.operations().stream()
            .map(
                it -> {
                  Map<String, Object> one = new LinkedHashMap<>();
                  one.put("operation", it.name());
                  one.put("place", it.place());
                  one.put("answers", met.getOrDefault(it, Map.of()));
                  return one;
                })
            .toList());
    return json;
  }
}
