// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.jsonpath.JsonPath;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.openapi.Formats;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;

/**
 * Applies what a test says it needs, by JSON path or name of a header, to the shape that was
 * derived from the example.
 */
public final class Needs {

  /** Its name in stub files. */
  public static final String KEY = "needs";

  private Needs() {}

  /**
   * Returns the shape with these needs.
   *
   * @param without receives why a need has no place in this response, by its path; other responses
   *     of the stub may have it
   * @throws IllegalArgumentException if the response does not meet them
   */
  static ResponseShape apply(
      @Nullable JsonNode needs,
      ResponseShape shape,
      Optional<JsonNode> example,
      BiConsumer<String, Optional<String>> without) {
    if (needs == null) {
      return shape;
    }
    Map<String, JsonNode> headers = new TreeMap<>(shape.headers());
    ObjectNode holder = StubNodes.object();
    shape.body().ifPresent(body -> holder.set(SchemaPlace.ROOT, body.deepCopy()));
    for (Map.Entry<String, JsonNode> need : needs.properties()) {
      String place = need.getKey();
      if (place.startsWith("$") || place.startsWith("/") || place.isEmpty()) {
        without.accept(place, body(place, need.getValue(), holder, example));
      } else {
        header(place.toLowerCase(Locale.ROOT), need.getValue(), headers);
      }
    }
    Optional<JsonNode> body = Optional.ofNullable(holder.get(SchemaPlace.ROOT));
    if (body.isPresent() && example.isPresent()) {
      requireMet(body.get(), example.get());
    }
    return new ResponseShape(shape.mediaType(), headers, body);
  }

  private static void requireMet(JsonNode schema, JsonNode example) {
    List<Difference> unmet = JsonSchemas.ofValid(schema, new Formats()).differences(example);
    if (!unmet.isEmpty()) {
      Difference first = unmet.get(0);
      throw Refusals.argument(
          String.format(
              "its own response does not meet them: at %s, expected %s, actual %s.\n"
                  + "Fix: correct the need or the response.",
              first.at(), first.expected(), first.actual()));
    }
  }

  private static void header(String name, JsonNode need, Map<String, JsonNode> headers) {
    if (is(need, "optional")) {
      headers.remove(name);
      return;
    }
    ObjectNode holder = StubNodes.object();
    holder.set(
        SchemaPlace.ROOT,
        headers.getOrDefault(name, StubNodes.member("type", StubNodes.text("string"))).deepCopy());
    SchemaPlace place =
        new SchemaPlace(holder, SchemaPlace.ROOT, StubNodes.text(""), Optional.empty());
    Need.apply(need, place);
    headers.put(name, place.schema());
  }

  /** Applies a need; returns why it has no place. */
  private static Optional<String> body(
      String path, JsonNode need, ObjectNode holder, Optional<JsonNode> example) {
    if (example.isEmpty()) {
      return Optional.of("it needs " + path + ", but its response is not JSON.");
    }
    JsonQuery query = JsonQuery.parse(path);
    List<Located> found = query.find(example.get());
    if (found.isEmpty()) {
      return Optional.of(
          String.format(
              "it needs %s, which selects nothing in its response%s.\nFix: correct the path.",
              path, query.whyNothing(example.get()).map(why -> ": " + why).orElse("")));
    }
    for (Located each : found) {
      SchemaPlace place =
          SchemaPlace.at(JsonPath.parse(each.path()).steps(), holder, example.get(), each.node());
      Need.apply(need, place);
    }
    return Optional.empty();
  }

  /** Returns true if a need has a flag. */
  public static boolean is(JsonNode need, String flag) {
    return need.isTextual() ? need.textValue().equals(flag) : need.path(flag).asBoolean(false);
  }
}
