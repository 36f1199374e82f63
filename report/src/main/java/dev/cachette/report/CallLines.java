// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import dev.cachette.calls.Call;
import dev.cachette.control.CallJson;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.openapi.Described;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Calls as lines of the {@link Journal}; secrets are masked. For one thread. */
final class CallLines {

  /** A longer body is cut. */
  private static final int MOST_CHARACTERS = 2_000;

  /** The text of a larger body is not looked at; to mask its secrets would take long. */
  private static final int LARGE = 1 << 20;

  private final MaskedBodies bodies = new MaskedBodies();

  /**
   * Returns the line of a call.
   *
   * @param arrived when it arrived, in real time
   */
  Line of(Call call, TestId test, Instant arrived, Optional<Described> service) {
    Map<String, Object> event = Events.event("call");
    Map<String, Object> summary = CallJson.summary(call);
    // The clock of the session may stand still, or run ahead.
    summary.remove("arrivedAt");
    Object madeBy = summary.remove("test");
    event.put("test", test.number());
    event.put("at", Events.micros(arrived));
    event.putAll(summary);
    if (madeBy != null && !madeBy.equals(test.name())) {
      event.put("madeBy", madeBy);
    }
    call.fault().ifPresent(fault -> event.put("fault", fault.toString()));
    service.ifPresent(it -> event.put("described", described(it, call)));
    List<Map<String, Object>> messages = new ArrayList<>();
    messages.add(message(call.headers(), call.body()));
    if (CallJson.isUnexpected(call)) {
      event.put("explanation", call.response().text());
    } else if (CallJson.hasResponse(call)) {
      messages.add(message(call.response().headers(), call.response().body()));
      mediaType(call.response()).ifPresent(type -> event.put("mediaType", type));
    }
    return new Line(event, messages);
  }

  private static Optional<String> mediaType(Response response) {
    return response
        .headers()
        .first("content-type")
        .map(type -> type.replaceFirst("\\s*;.*", "").toLowerCase(Locale.ROOT));
  }

  private static Map<String, Object> described(Described service, Call call) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("origin", service.origin());
    json.put("name", service.description().name());
    service
        .description()
        .operation(call.request())
        .ifPresent(it -> json.put("operation", it.name()));
    return json;
  }

  private Map<String, Object> message(Headers headers, Body body) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("headers", CallJson.headers(headers));
    json.put("size", body.size());
    Optional<String> text = body.size() > LARGE ? Optional.empty() : bodies.of(headers, body);
    text.ifPresent(
        all -> {
          json.put("body", all.substring(0, Math.min(MOST_CHARACTERS, all.length())));
          if (all.length() > MOST_CHARACTERS) {
            json.put("cut", true);
          }
        });
    return json;
  }
}
