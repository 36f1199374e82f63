package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.util.RawValue;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A test of the run, with its calls, as JSON. */
final class TestOfRun {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final double NANOS_OF_MILLI = 1e6;
  private static final int REQUEST_TIMEOUT = 408;
  private static final int TOO_MANY_REQUESTS = 429;
  private static final int SERVER_ERROR = 500;

  private TestOfRun() {}

  /**
   * Returns it.
   *
   * @param jvm the number of its JVM, from 0
   * @param jvmEnded when that has ended
   */
  static ObjectNode json(int jvm, ScopeEvents scope, Optional<Instant> jvmEnded) {
    Instant start = scope.startedAt();
    ObjectNode json = NODES.objectNode();
    json.put("name", scope.name());
    json.put("jvm", jvm);
    json.put("startedAt", start.toString());
    json.put("durationMillis", millis(start, end(scope, jvmEnded)));
    json.put("waitingMillis", waiting(scope.calls()));
    json.put("outcome", outcome(scope));
    ArrayNode unexpected = NODES.arrayNode();
    ArrayNode attempts = NODES.arrayNode();
    scope
        .ended()
        .ifPresent(
            end -> {
              if (end.has("failure")) {
                json.set("failure", end.path("failure"));
              }
              if (end.path("dropped").asLong() > 0) {
                json.set("dropped", end.path("dropped"));
              }
              end.path("unexpected").forEach(unexpected::add);
              end.path("attempts").forEach(attempts::add);
            });
    json.set("unexpected", unexpected);
    json.set("attempts", attempts);
    json.set("calls", calls(start, scope.calls()));
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

  private static double millis(Instant from, Instant to) {
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

  private static ArrayNode calls(Instant start, List<CallEvent> calls) {
    ArrayNode json = NODES.arrayNode();
    Map<String, Long> failed = new HashMap<>();
    for (CallEvent call : calls) {
      ObjectNode shown = NODES.objectNode();
      shown.put("startMillis", millis(start, call.at()));
      shown.setAll((ObjectNode) call.event());
      shown.remove(List.of("event", "test", "at"));
      String what = shown.path("method").asText() + " " + shown.path("url").asText();
      Long before = failed.remove(what);
      if (before != null) {
        shown.put("repeats", before);
      }
      if (invitesRepetition(shown)) {
        failed.put(what, call.number());
      }
      for (int at = 0; at < call.details().size(); at++) {
        shown.putRawValue(CallEvent.NAMES.get(at), new RawValue(call.details().get(at)));
      }
      json.add(shown);
    }
    return json;
  }

  /** Returns true if a client would repeat such a call. */
  private static boolean invitesRepetition(JsonNode call) {
    int status = call.path("answer").asInt();
    boolean refused =
        status >= SERVER_ERROR || status == TOO_MANY_REQUESTS || status == REQUEST_TIMEOUT;
    return call.has("fault") || refused && !call.path("unexpected").asBoolean();
  }
}
