// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.calls.Call;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A call that the scenario makes without a fault.
 *
 * @param number its number in the scenario, from 1
 * @param request its request
 * @param response the response that it gets
 * @param occurrence its number among the calls of its method and path, from 1
 * @param ofOrigin its number among the calls to its origin, from 1
 */
record ScenarioCall(int number, Request request, Response response, int occurrence, int ofOrigin) {

  /** Returns the calls of a run. */
  static List<ScenarioCall> of(List<Call> calls) {
    Map<String, Integer> occurrences = new HashMap<>();
    Map<String, Integer> origins = new HashMap<>();
    List<ScenarioCall> all = new ArrayList<>();
    for (Call call : calls) {
      Request request = call.request();
      all.add(
          new ScenarioCall(
              all.size() + 1,
              request,
              call.response(),
              occurrences.merge(key(request), 1, Integer::sum),
              origins.merge(request.uri().origin(), 1, Integer::sum)));
    }
    return all;
  }

  /** Returns what calls for the same thing have in common: method, origin and path. */
  static String key(Request request) {
    Uri uri = request.uri();
    return request.method() + " " + uri.origin() + uri.path();
  }

  String key() {
    return key(request);
  }
}
