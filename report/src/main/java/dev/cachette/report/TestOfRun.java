// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * A test of the run.
 *
 * @param scope what happened in it
 * @param end when it ended, or was last seen
 */
record TestOfRun(ScopeEvents scope, Instant end) {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final double NANOS_OF_MILLI = 1e6;

  /**
   * Returns it.
   *
   * @param jvmEnded when its JVM has ended
   */
  static TestOfRun of(ScopeEvents scope, Optional<Instant> jvmEnded) {
    return new TestOfRun(scope, end(scope, jvmEnded));
  }

  /**
   * Returns it as JSON, with its calls.
   *
   * @param jvm the number of its JVM, from 0
   */
  ObjectNode json(int jvm) {
    Instant start = scope.startedAt();
    ObjectNode json = NODES.objectNode();
    json.put("name", scope.name());
    json.put("jvm", jvm);
    json.put("startedAt", start.toString());
    json.put("durationMillis", millis(start, end));
    json.put("waitingMillis", waiting(scope.calls()));
    json.put("outcome", outcome(scope));
    ArrayNode unexpected = NODES.arrayNode();
    ArrayNode attempts = NODES.arrayNode();
    scope
        .ended()
        .ifPresent(
            atEnd -> {
              if (atEnd.has("failure")) {
                json.set("failure", atEnd.path("failure"));
              }
              if (atEnd.path("dropped").asLong() > 0) {
                json.set("dropped", atEnd.path("dropped"));
              }
              atEnd.path("unexpected").forEach(unexpected::add);
              atEnd.path("attempts").forEach(attempts::add);
            });
    json.set("unexpected", unexpected);
    json.set("attempts", attempts);
    json.set("calls", scope.shownCalls());
    return json;
  }

  private static String outcome(ScopeEvents scope) {
    return scope.ended().map(end -> end.has("failure") ? "failed" : "passed").orElse("unfinished");
  }

  private static Instant end(ScopeEvents scope, Optional<Instant> jvmEnded) {
    Instant last = scope.startedAt();
    for (CallEvent call : scope.calls()) {
      Instant end = endOf(call);
      last = end.isAfter(last) ? end : last;
    }
    Instant lastSeen = last;
    return scope.ended().map(ScopeEvents::at).orElseGet(() -> jvmEnded.orElse(lastSeen));
  }

  private static Instant endOf(CallEvent call) {
    double millis = call.event().path("durationMillis").asDouble();
    return call.at().plusNanos((long) (millis * NANOS_OF_MILLI));
  }

  static double millis(Instant from, Instant to) {
    return Numbers.rounded(Duration.between(from, to).toNanos() / NANOS_OF_MILLI);
  }

  /** Returns for how long at least one call waited for its answer. */
  private static double waiting(List<CallEvent> calls) {
    double total = 0;
    Instant reached = Instant.MIN;
    for (CallEvent call : calls) {
      Instant from = call.at().isAfter(reached) ? call.at() : reached;
      Instant to = endOf(call);
      if (to.isAfter(from)) {
        total += millis(from, to);
        reached = to;
      }
    }
    return Numbers.rounded(total);
  }
}
