// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.calls.Call;
import dev.cachette.calls.CallTimes;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import dev.cachette.result.ClosestStub;
import dev.cachette.result.Difference;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** One call with everything that is known of it, as JSON; secrets are masked. */
public final class CallJson {

  private static final int UNEXPECTED = 501;
  private static final double NANOS_OF_MILLI = 1e6;

  /** A longer body is cut; nobody reads it in a list. */
  private static final int MOST_CHARACTERS = 100_000;

  /** The same for bytes; pictures are shown. */
  private static final int MOST_BYTES = 1 << 20;

  private CallJson() {}

  /** Returns everything that is known of a call. */
  public static Map<String, Object> of(Call call) {
    Map<String, Object> json = summary(call);
    json.put("headers", headers(call.headers()));
    addBody(json, call.headers(), call.body());
    if (isUnexpected(call)) {
      json.put("explanation", call.response().text());
      json.put("closestStubs", call.closestStubs().stream().map(CallJson::closest).toList());
    } else if (hasResponse(call)) {
      json.put("response", response(call.response()));
    }
    return json;
  }

  private static Map<String, Object> response(Response response) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("status", response.status());
    json.put("headers", headers(response.headers()));
    addBody(json, response.headers(), response.body());
    return json;
  }

  private static Map<String, Object> closest(ClosestStub stub) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("stub", Masking.text(stub.stub().name()));
    json.put("place", stub.stub().place());
    json.put("conditions", stub.checks().stream().map(CallJson::condition).toList());
    return json;
  }

  private static Map<String, Object> condition(Check check) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("condition", check.condition());
    json.put("holds", check.holds());
    json.put("expected", check.expected());
    List<Map<String, Object>> differences = new ArrayList<>();
    for (Difference each : check.differences()) {
      Map<String, Object> one = new LinkedHashMap<>();
      one.put("at", each.at());
      one.put("expected", each.expected());
      one.put("actual", each.actual());
      each.cause().ifPresent(cause -> one.put("cause", cause.toString()));
      differences.add(one);
    }
    json.put("differences", differences);
    return json;
  }

  /** Returns header fields; those of one name are joined. */
  public static Map<String, String> headers(Headers headers) {
    Map<String, String> json = new LinkedHashMap<>();
    headers.forEach(
        it ->
            json.merge(
                it.name(),
                Masking.header(it.name(), it.value()),
                (one, more) -> one + ", " + more));
    return json;
  }

  /** Adds a body as JSON if it is JSON, else as a string; of a binary one, only its size. */
  private static void addBody(Map<String, Object> json, Headers headers, Body body) {
    json.put("bodySize", body.size());
    headers.first("content-type").ifPresent(type -> json.put("mediaType", type));
    Optional<String> text = BodyText.of(headers, body);
    if (text.isEmpty()) {
      addBytes(json, body);
    } else if (text.get().length() > MOST_CHARACTERS) {
      json.put("body", TextNode.valueOf(text.get().substring(0, MOST_CHARACTERS)));
      json.put("bodyIsCut", true);
    } else {
      json.put(
          "body", BodyText.json(headers, text.get()).orElseGet(() -> TextNode.valueOf(text.get())));
    }
  }

  /** Adds the first bytes of a binary body; texts in it are masked like others. */
  private static void addBytes(Map<String, Object> json, Body body) {
    if (body.isEmpty()) {
      return;
    }
    byte[] bytes = Arrays.copyOf(body.bytes(), Math.min(body.size(), MOST_BYTES));
    String masked = Masking.text(new String(bytes, StandardCharsets.ISO_8859_1));
    byte[] shown = masked.getBytes(StandardCharsets.ISO_8859_1);
    json.put("bytes", Base64.getEncoder().encodeToString(shown));
    if (bytes.length < body.size()) {
      json.put("bodyIsCut", true);
    }
  }

  /** Returns what is known of a call, without headers and bodies. */
  public static Map<String, Object> summary(Call call) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("number", call.number());
    json.put("method", call.method());
    json.put("url", Masking.url(call.uri().toString()));
    json.put("state", call.state().name().toLowerCase(Locale.ROOT));
    if (hasResponse(call)) {
      json.put("answer", call.response().status());
    } else {
      call.fault().ifPresent(fault -> json.put("answer", fault.toString()));
    }
    json.put("arrivedAt", call.arrivedAt().toString());
    call.duration().ifPresent(it -> json.put("durationMillis", millis(it)));
    json.put("times", times(call.times()));
    json.put("protocol", call.protocol());
    json.put("connection", call.connection());
    call.stub()
        .ifPresent(
            stub -> {
              json.put("stub", Masking.text(stub.name()));
              json.put("place", stub.place());
            });
    call.madeBy().test().ifPresent(test -> json.put("test", test));
    call.madeBy().thread().ifPresent(thread -> json.put("thread", thread));
    json.put("size", hasResponse(call) ? call.response().body().size() : 0);
    call.failure().ifPresent(why -> json.put("failure", why));
    json.put("unexpected", isUnexpected(call));
    return json;
  }

  private static Map<String, Object> times(CallTimes times) {
    Map<String, Object> json = new LinkedHashMap<>();
    times.matched().ifPresent(it -> json.put("matched", millis(it)));
    times.held().ifPresent(it -> json.put("held", millis(it)));
    times.released().ifPresent(it -> json.put("released", millis(it)));
    times.firstByte().ifPresent(it -> json.put("firstByte", millis(it)));
    times.answered().ifPresent(it -> json.put("answered", millis(it)));
    return json;
  }

  private static double millis(Duration time) {
    return time.toNanos() / NANOS_OF_MILLI;
  }

  /** Returns true if there is a response, not a fault, and not nothing yet. */
  public static boolean hasResponse(Call call) {
    return call.fault().isEmpty()
        && call.state() != Call.State.ARRIVED
        && call.state() != Call.State.COMPUTING;
  }

  /** Returns true if nothing answered it. */
  public static boolean isUnexpected(Call call) {
    return call.stub().isEmpty() && hasResponse(call) && call.response().status() == UNEXPECTED;
  }
}
