// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.json.Json;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Answers from the examples of an API description: the first success, in the requested media type.
 */
final class ExampleResponses {

  private static final int OK = 200;

  private final Schemas schemas;
  private final Operation operation;
  private final Preference preference;

  private ExampleResponses(Schemas schemas, Operation operation, Preference preference) {
    this.schemas = schemas;
    this.operation = operation;
    this.preference = preference;
  }

  /**
   * Returns the response of an operation.
   *
   * @throws MalformedDescription if it has none, or not the one that the request prefers
   */
  static Response of(Schemas schemas, Operation operation, Request request) {
    return new ExampleResponses(schemas, operation, Preference.of(request)).response(request);
  }

  private Response response(Request request) {
    Map.Entry<String, Element> chosen = chosen();
    int status = preference.status().orElseGet(() -> status(chosen.getKey()));
    Element described = chosen.getValue();
    Headers headers = headers(described);
    Map<String, Element> types = described.get("content").members();
    if (types.isEmpty()) {
      return new Response(status, headers, Body.empty());
    }
    Map.Entry<String, Element> media = accepted(types, request.headers());
    String type = MediaTypes.bare(media.getKey());
    String concrete = type.contains("*") ? "application/json" : type;
    String text = text(media.getValue(), concrete);
    return new Response(status, headers.with("content-type", concrete), Body.of(text));
  }

  private Map.Entry<String, Element> chosen() {
    Map<String, Element> all = operation.responses().members();
    if (preference.status().isPresent()) {
      int status = preference.status().getAsInt();
      return Stream.of(Integer.toString(status), status / 100 + "XX", "default")
          .filter(all::containsKey)
          .findFirst()
          .map(key -> Map.entry(key, all.get(key)))
          .orElseThrow(
              () ->
                  operation
                      .responses()
                      .malformed(
                          "the request prefers status "
                              + status
                              + ", which is not described. Described: "
                              + operation.statuses()
                              + "."));
    }
    return all.entrySet().stream()
        .filter(member -> member.getKey().matches("[1-5](\\d\\d|XX)|default"))
        .min(Comparator.comparing(member -> rank(member.getKey())))
        .orElseThrow(() -> operation.at().malformed("no responses are described."));
  }

  /** Sorts successes first, and simple ones before others. */
  private static String rank(String key) {
    return (key.startsWith("2") ? "0" : key.equals("default") ? "1" : "2") + key;
  }

  private static int status(String key) {
    if (key.equals("default")) {
      return OK;
    }
    return Integer.parseInt(key.replace("XX", "00"));
  }

  private static Headers headers(Element described) {
    Headers headers = Headers.none();
    for (Map.Entry<String, Element> member : described.get("headers").members().entrySet()) {
      Element header = member.getValue();
      Optional<JsonNode> given = example(header);
      boolean wanted = header.isSet("required") && header.raw("schema").isThere();
      if (given.isPresent() || wanted) {
        JsonNode value =
            given.orElseGet(() -> Samples.of(header.raw("schema"), Direction.RESPONSE));
        headers = headers.and(member.getKey(), value.isValueNode() ? value.asText() : "" + value);
      }
    }
    return headers;
  }

  /** Returns the media type that a request prefers; the first one, if it has no preference. */
  private static Map.Entry<String, Element> accepted(Map<String, Element> types, Headers headers) {
    List<String> ranges =
        headers.all("accept").stream()
            .flatMap(value -> Arrays.stream(value.split(",")))
            .filter(range -> !range.matches(".*;\\s*q\\s*=\\s*0(\\.0*)?\\s*"))
            .sorted(Comparator.comparingDouble(ExampleResponses::weight).reversed())
            .map(MediaTypes::bare)
            .toList();
    return ranges.stream()
        .flatMap(range -> types.entrySet().stream().filter(it -> fits(it.getKey(), range)))
        .findFirst()
        .orElseGet(() -> types.entrySet().iterator().next());
  }

  private static double weight(String range) {
    return Stream.of(range.split(";"))
        .map(String::strip)
        .filter(parameter -> parameter.matches("q\\s*=\\s*[01](\\.\\d*)?"))
        .mapToDouble(parameter -> Double.parseDouble(parameter.replaceAll("q\\s*=\\s*", "")))
        .findFirst()
        .orElse(1);
  }

  private static boolean fits(String type, String range) {
    String bare = MediaTypes.bare(type);
    return range.equals("*/*")
        || bare.equals(range)
        || range.endsWith("/*") && bare.startsWith(range.substring(0, range.length() - 1));
  }

  private String text(Element media, String type) {
    boolean json = BodyFormats.named(Optional.of(type)).isJson();
    Optional<JsonNode> example =
        preference.example().map(name -> named(media, name)).or(() -> example(media));
    if (example.isEmpty() && media.raw("itemSchema").isThere() && isSequence(type)) {
      return Samples.of(media.raw("itemSchema"), Direction.RESPONSE) + "\n";
    }
    if (example.isEmpty() && !media.raw("schema").isThere()) {
      throw media.malformed("there is no example here, and no schema to generate one from.");
    }
    if (example.isEmpty() && !json && !type.startsWith("text/")) {
      throw media.malformed(
          "there is no example here, and for " + type + " none is generated. Fix: add an example.");
    }
    JsonNode value = example.orElseGet(() -> generated(media));
    boolean isTextOfJson =
        json
            && value.isTextual()
            && !SchemaTypes.of(media.raw("schema")).contains("string")
            && Json.isValid(value.asText());
    return !json && value.isValueNode() || isTextOfJson ? value.asText() : value.toString();
  }

  private static JsonNode named(Element media, String name) {
    Element examples = media.get("examples");
    Element named = value(examples.get(name));
    if (!named.isThere()) {
      List<String> names = new ArrayList<>();
      examples.json().fieldNames().forEachRemaining(names::add);
      throw media.malformed(
          "the request prefers the example \""
              + name
              + "\", which is not here. Examples: "
              + (names.isEmpty() ? "none" : String.join(", ", names))
              + ".");
    }
    return named.json();
  }

  private static boolean isSequence(String type) {
    return BodyFormats.named(Optional.of(type)).isSequence();
  }

  /** Returns the value of an example, which has another name since OpenAPI 3.2. */
  private static Element value(Element example) {
    Element value = example.raw("value");
    return value.isThere() ? value : example.raw("dataValue");
  }

  /** Returns a value that the schema allows. */
  private JsonNode generated(Element media) {
    Element schema = media.raw("schema");
    JsonNode value = Samples.of(schema, Direction.RESPONSE);
    List<Difference> wrong = schemas.differences(value, schema, Direction.RESPONSE);
    if (!wrong.isEmpty()) {
      throw media.malformed(
          "no valid value can be generated, because of "
              + wrong.get(0).at()
              + ": expected "
              + wrong.get(0).expected()
              + "\nFix: add an example here, or to that part of the schema.");
    }
    return value;
  }

  /** Returns the given example; the first, if there are several. */
  static Optional<JsonNode> example(Element from) {
    return examples(from).stream().findFirst().map(Element::json);
  }

  /** Returns the given examples, as values. */
  static List<Element> examples(Element from) {
    return Stream.concat(
            Stream.of(from.raw("example")),
            from.get("examples").members().values().stream().map(ExampleResponses::value))
        .filter(Element::isThere)
        .toList();
  }
}
