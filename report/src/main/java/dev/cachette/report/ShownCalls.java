// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.util.RawValue;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The calls of a test of the run, as JSON: what each did, and which one it repeats. */
final class ShownCalls {

  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
  private static final int REQUEST_TIMEOUT = 408;
  private static final int TOO_MANY_REQUESTS = 429;
  private static final int SERVER_ERROR = 500;

  private ShownCalls() {}

  static ArrayNode of(ScopeEvents scope) {
    ArrayNode json = NODES.arrayNode();
    Map<String, Long> failed = new HashMap<>();
    for (CallEvent call : scope.calls()) {
      ObjectNode shown = NODES.objectNode();
      shown.put("startMillis", TestOfRun.millis(scope.startedAt(), call.at()));
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
