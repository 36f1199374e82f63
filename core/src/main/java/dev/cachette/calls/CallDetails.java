// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Header;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Difference;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** Tells apart calls with the same method and URL: by a value of their JSON, a body, a header. */
final class CallDetails {

  private static final int LONGEST = 40;

  /** Headers that differ in each call. */
  private static final Set<String> IGNORED =
      Set.of("date", "content-length", "traceparent", "tracestate", "x-request-id");

  private CallDetails() {}

  /** Returns what distinguishes each call, by its index; nothing for calls that need none. */
  static Map<Integer, String> of(List<Call> calls) {
    Map<String, Integer> first = new HashMap<>();
    Map<Integer, String> details = new HashMap<>();
    for (int at = 0; at < calls.size(); at++) {
      Call call = calls.get(at);
      Integer like = first.putIfAbsent(call.request().toString(), at);
      if (like != null) {
        int number = at;
        difference(calls.get(like), call)
            .ifPresent(
                where -> {
                  details.putIfAbsent(like, where.of(calls.get(like)));
                  details.put(number, where.of(call));
                });
      }
    }
    return details;
  }

  /** A part of calls. */
  private interface Where {
    String of(Call call);
  }

  private static Optional<Where> difference(Call one, Call other) {
    if (!one.request().body().equals(other.request().body())) {
      return Optional.of(ofBodies(one, other));
    }
    return one.headers().stream()
        .map(Header::name)
        .filter(name -> !IGNORED.contains(name.toLowerCase(java.util.Locale.ROOT)))
        .filter(name -> !one.headers().all(name).equals(other.headers().all(name)))
        .findFirst()
        .map(
            name ->
                call ->
                    call.headers()
                        .first(name)
                        .map(value -> new Header(name, value).toString())
                        .orElse("no " + name));
  }

  private static Where ofBodies(Call one, Call other) {
    Optional<JsonNode> left = json(one);
    Optional<JsonNode> right = json(other);
    if (left.isPresent() && right.isPresent()) {
      List<Difference> differences = JsonComparison.same(left.get()).differences(right.get());
      if (!differences.isEmpty()) {
        String path = differences.get(0).at();
        JsonQuery query = JsonQuery.parse(path);
        return call ->
            path
                + " "
                + masked(
                    call,
                    json(call).flatMap(query::value).map(Objects::toString).orElse("missing"));
      }
    }
    return call ->
        call.request().body().isEmpty() ? "no body" : Quoting.quote(masked(call, call.text()));
  }

  private static Optional<JsonNode> json(Call call) {
    return Content.of(call.headers(), call.request().body()).json();
  }

  private static String masked(Call call, String text) {
    String masked = RequestMask.of(call.request()).text(text);
    return masked.length() <= LONGEST ? masked : masked.substring(0, LONGEST) + "...";
  }
}
