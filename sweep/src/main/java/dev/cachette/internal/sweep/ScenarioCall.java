// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A call that the scenario makes without a fault.
 *
 * @param number its number in the scenario, from 1
 * @param kind its kind, as a request line
 * @param request its request
 * @param response the response that it gets; empty if it gets a fault instead
 * @param occurrence its number among the calls of its kind, from 1
 * @param ofOrigin its number among the calls to its origin, from 1
 */
record ScenarioCall(
    int number,
    String kind,
    Request request,
    Optional<Response> response,
    int occurrence,
    int ofOrigin) {

  /** Returns the calls of a run. */
  static List<ScenarioCall> of(List<Call> calls, CallKinds kinds) {
    Map<String, Integer> occurrences = new HashMap<>();
    Map<String, Integer> origins = new HashMap<>();
    List<ScenarioCall> all = new ArrayList<>();
    for (Call call : calls) {
      Request request = call.request();
      String kind = kinds.of(request);
      all.add(
          new ScenarioCall(
              all.size() + 1,
              kind,
              request,
              call.fault().isPresent() ? Optional.empty() : Optional.of(call.response()),
              occurrences.merge(kind, 1, Integer::sum),
              origins.merge(request.uri().origin(), 1, Integer::sum)));
    }
    return all;
  }
}
