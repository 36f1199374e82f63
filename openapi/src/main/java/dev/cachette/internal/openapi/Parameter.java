// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.uri.Percent;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * A parameter of an operation.
 *
 * @param name its name
 * @param in its place: {@code path}, {@code query}, {@code header} or {@code cookie}; {@code
 *     querystring} for the whole query (OpenAPI 3.2)
 * @param required whether it is required
 * @param style how arrays and objects are serialised
 * @param explode whether each of their parts is a value of its own
 * @param schema its schema; missing for any value
 * @param isJson whether its text is JSON
 * @param at where it is described
 */
record Parameter(
    String name,
    String in,
    boolean required,
    String style,
    boolean explode,
    Element schema,
    boolean isJson,
    Element at) {

  private static final Set<String> PLACES =
      Set.of("path", "query", "querystring", "header", "cookie");

  /** These headers are never parameters (OpenAPI 3.1, 4.8.12). */
  private static final Set<String> NO_PARAMETERS =
      Set.of("accept", "content-type", "authorization");

  /**
   * Parses a parameter.
   *
   * @throws MalformedDescription if it has no name or no valid place
   */
  static Optional<Parameter> read(Element at) {
    Element there = at.followed();
    String name =
        there.text("name").orElseThrow(() -> there.malformed("a parameter must have a name."));
    String in = there.text("in").orElse("");
    if (!PLACES.contains(in)) {
      throw there.malformed(
          "the place of a parameter must be path, query, querystring, header or cookie, not \""
              + in
              + "\".");
    }
    if (in.equals("header") && NO_PARAMETERS.contains(name.toLowerCase(Locale.ROOT))) {
      return Optional.empty();
    }
    boolean form = in.equals("query") || in.equals("cookie");
    String style = there.text("style").orElse(form ? "form" : "simple");
    boolean explode = there.text("explode").map(Boolean::parseBoolean).orElse(style.equals("form"));
    Element content = there.raw("content");
    Optional<Element> json = content.members().values().stream().findFirst();
    return Optional.of(
        new Parameter(
            name,
            in,
            in.equals("path") || there.isSet("required"),
            style,
            explode,
            json.map(it -> it.raw("schema")).orElseGet(() -> there.raw("schema")),
            json.isPresent() && content.json().fieldNames().next().contains("json"),
            there));
  }

  /** Parses a header of a response. */
  static Parameter header(String name, Element at) {
    return new Parameter(
        name,
        "header",
        at.isSet("required"),
        "simple",
        at.isSet("explode"),
        at.raw("schema"),
        false,
        at);
  }

  /** Returns its value among header fields; empty if it is absent. */
  Optional<JsonNode> in(Headers headers) {
    List<String> values = headers.all(name);
    return values.isEmpty()
        ? Optional.empty()
        : Optional.of(ParameterText.of(this, String.join(",", values)));
  }

  /** Returns the value of the whole query by its media type; empty if there is no query. */
  Optional<JsonNode> ofWhole(Optional<String> query) {
    String type = at.raw("content").members().keySet().stream().findFirst().orElse("");
    return query
        .map(text -> isJson ? Percent.decode(text) : text)
        .map(text -> Content.of(Headers.none().with("content-type", type), Body.of(text)))
        .flatMap(content -> BodyValue.of(content, schema))
        .map(it -> it.value().orElseGet(() -> TextNode.valueOf(query.orElseThrow())));
  }

  /** Returns the violations of a value, or of its absence; empty if there are none. */
  Optional<Check> check(Optional<JsonNode> value, Schemas schemas, Direction direction) {
    if (value.isEmpty()) {
      return required
          ? Optional.of(
              Check.missed(
                  title(),
                  0,
                  Difference.of(at.asks("present, because it is required"), Difference.MISSING)))
          : Optional.empty();
    }
    List<Difference> differences =
        schemas.parameter(value.get(), schema, direction).stream().map(this::masked).toList();
    return differences.isEmpty()
        ? Optional.empty()
        : Optional.of(Check.missed(title(), 0, "valid against its schema", differences));
  }

  /** Hides the value if this is a place of secrets: no schema knows that. */
  private Difference masked(Difference difference) {
    String actual = difference.actual();
    boolean quoted = actual.startsWith("\"") && actual.endsWith("\"") && actual.length() > 1;
    String bare = quoted ? actual.substring(1, actual.length() - 1) : actual;
    String shown =
        switch (in) {
          case "header" -> Masking.header(name, bare);
          case "cookie" -> Masking.header("cookie", name + "=" + bare).substring(name.length() + 1);
          default -> Masking.field(name, bare);
        };
    return shown.equals(bare)
        ? difference
        : new Difference(
            difference.at(), difference.expected(), shown, difference.kind(), Optional.empty());
  }

  /** Returns the name of its check. */
  String title() {
    return in + " " + name;
  }

  /** Merges parameters; those with the same place and name replace each other. */
  String key() {
    return in + " " + (in.equals("header") ? name.toLowerCase(Locale.ROOT) : name);
  }

  boolean isObject() {
    return !isJson && SchemaTypes.of(schema).contains("object");
  }

  boolean isArray() {
    return !isJson && SchemaTypes.of(schema).contains("array");
  }
}
