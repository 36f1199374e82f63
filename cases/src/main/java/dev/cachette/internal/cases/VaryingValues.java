// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.jsonpath.Located;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;

/** The values of a response that vary, as they were captured and as they are now; but no times. */
public final class VaryingValues {

  private VaryingValues() {}

  /** Gives each pair of values that differ to a receiver. */
  public static void forEach(
      CaseExchange captured, Exchange now, BiConsumer<String, String> receiver) {
    Optional<Response> before = captured.exchange().response();
    Optional<Response> after = now.response();
    if (before.isEmpty() || after.isEmpty()) {
      return;
    }
    Instant then = captured.exchange().started();
    for (String name : captured.response().headers()) {
      String one = String.join(", ", before.get().headers().all(name));
      String other = String.join(", ", after.get().headers().all(name));
      pairs(one, then, other, now.started(), receiver);
    }
    Optional<JsonNode> one = json(before.get());
    Optional<JsonNode> other = json(after.get());
    for (String path : captured.response().json()) {
      if (one.isPresent() && other.isPresent()) {
        Map<String, String> values = texts(path, one.get());
        texts(path, other.get())
            .forEach(
                (place, value) ->
                    pairs(values.getOrDefault(place, ""), then, value, now.started(), receiver));
      }
    }
  }

  /** Returns the strings at a path, by their places. */
  private static Map<String, String> texts(String path, JsonNode json) {
    Map<String, String> values = new HashMap<>();
    for (Located located : JsonQuery.parse(path).find(json)) {
      if (located.node().isTextual()) {
        values.put(located.path(), located.node().textValue());
      }
    }
    return values;
  }

  private static Optional<JsonNode> json(Response response) {
    return Content.of(response.headers(), response.body()).json();
  }

  /** Pairs what was generated within two texts; or the texts, if nothing has a shape. */
  private static void pairs(
      String one, Instant then, String other, Instant now, BiConsumer<String, String> receiver) {
    List<String> before = values(one, then);
    List<String> after = values(other, now);
    if (before.isEmpty() && !one.isEmpty() && !other.isEmpty()) {
      receiver.accept(one, other);
    } else if (before.size() == after.size()) {
      for (int at = 0; at < before.size(); at++) {
        receiver.accept(before.get(at), after.get(at));
      }
    }
  }

  private static List<String> values(String text, Instant now) {
    List<String> found = new ArrayList<>();
    Shapes.replaceIdentifiers(
        text,
        now,
        value -> {
          found.add(value);
          return value;
        });
    return found;
  }
}
