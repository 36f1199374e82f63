// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import dev.cachette.internal.calls.Tried;
import dev.cachette.internal.engine.EndedScope;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.StubStatus;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * The end of a scope. The state of cassettes, which may change later, is read when it is made.
 *
 * @param scope what was in it
 * @param failure why it fails its test
 * @param at when it ended
 * @param cassettes its cassettes, as JSON
 */
record ScopeEnd(
    EndedScope scope, Optional<String> failure, Instant at, List<Map<String, Object>> cassettes) {

  /** Of files with thousands of stubs, most have no calls in a test. */
  private static final int MOST_WITHOUT_CALLS = 1_000;

  static ScopeEnd of(EndedScope scope, Optional<String> failure, Instant at) {
    List<Map<String, Object>> cassettes =
        scope.report().cassettes().stream().map(it -> Events.cassette(it, at)).toList();
    return new ScopeEnd(scope, failure, at, cassettes);
  }

  /** Returns what tells stubs of a run apart; their answers may be others in each test. */
  static List<Object> key(StubStatus stub) {
    return List.of(stub.stub(), stub.request(), stub.uses().size());
  }

  /**
   * Returns it as JSON.
   *
   * @param stubs the numbers of the stubs
   */
  Line event(Map<List<Object>, Integer> stubs) {
    Map<String, Object> event = new LinkedHashMap<>();
    event.put("event", "ended");
    event.put("test", scope.test().number());
    event.put("name", scope.test().name());
    event.put("at", Events.micros(at));
    failure.ifPresent(why -> event.put("failure", Masking.text(why)));
    event.put("dropped", scope.log().dropped());
    event.put(
        "unexpected",
        scope.report().unexpected().stream()
            .map(
                it ->
                    Map.of(
                        "summary", it.summary(),
                        "explanation", it.explanation(),
                        "times", it.times()))
            .toList());
    event.put("attempts", attempts());
    List<Map<String, Object>> uses = new ArrayList<>();
    int others = 0;
    for (StubStatus stub : scope.stubs()) {
      boolean isUsed = stub.uses().stream().anyMatch(it -> it.calls() > 0);
      if (isUsed || others++ < MOST_WITHOUT_CALLS) {
        uses.add(Events.use(stubs.get(key(stub)), stub));
      }
    }
    event.put("stubs", uses);
    event.put("cassettes", cassettes);
    return Line.of(event);
  }

  /** Returns the attempts that met a fault before there was a call, counted. */
  private List<Map<String, Object>> attempts() {
    Map<List<String>, Integer> counts =
        new TreeMap<>((one, other) -> String.join(" ", one).compareTo(String.join(" ", other)));
    for (Tried each : scope.log().tried()) {
      counts.merge(List.of(each.destination(), each.outcome()), 1, Integer::sum);
    }
    List<Map<String, Object>> json = new ArrayList<>();
    counts.forEach(
        (what, times) ->
            json.add(Map.of("service", what.get(0), "outcome", what.get(1), "times", times)));
    return json;
  }
}
