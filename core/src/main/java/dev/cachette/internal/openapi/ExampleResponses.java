package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.json.Json;
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

  private ExampleResponses() {}

  /**
   * Returns the response of an operation.
   *
   * @throws MalformedDescription if it has none
   */
  static Response of(Operation operation, Request request) {
    Map.Entry<String, Element> chosen =
        operation.responses().members().entrySet().stream()
            .filter(member -> member.getKey().matches("[1-5](\\d\\d|XX)|default"))
            .min(Comparator.comparing(member -> rank(member.getKey())))
            .orElseThrow(() -> operation.at().malformed("no responses are described."));
    Element described = chosen.getValue();
    Headers headers = headers(described);
    Map<String, Element> types = described.get("content").members();
    if (types.isEmpty()) {
      return new Response(status(chosen.getKey()), headers, Body.empty());
    }
    Map.Entry<String, Element> media = accepted(types, request.headers());
    String type = MediaTypes.bare(media.getKey());
    String concrete = type.contains("*") ? "application/json" : type;
    String text = text(media.getValue(), concrete);
    return new Response(
        status(chosen.getKey()), headers.with("content-type", concrete), Body.of(text));
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

  private static String text(Element media, String type) {
    boolean json = BodyFormats.named(Optional.of(type)).isJson();
    Optional<JsonNode> example = example(media);
    if (example.isEmpty() && !media.raw("schema").isThere()) {
      throw media.malformed("there is no example here, and no schema to generate one from.");
    }
    if (example.isEmpty() && !json && !type.startsWith("text/")) {
      throw media.malformed(
          "there is no example here, and for " + type + " none is generated. Fix: add an example.");
    }
    JsonNode value = example.orElseGet(() -> Samples.of(media.raw("schema"), Direction.RESPONSE));
    boolean isTextOfJson =
        json
            && value.isTextual()
            && !SchemaTypes.of(media.raw("schema")).contains("string")
            && Json.problemIn(value.asText()).isEmpty();
    return !json && value.isValueNode() || isTextOfJson ? value.asText() : value.toString();
  }

  /** Returns the given example; the first, if there are several. */
  static Optional<JsonNode> example(Element from) {
    return examples(from).stream().findFirst().map(Element::json);
  }

  /** Returns the given examples, as values. */
  static List<Element> examples(Element from) {
    return Stream.concat(
            Stream.of(from.raw("example")),
            from.get("examples").members().values().stream().map(each -> each.raw("value")))
        .filter(Element::isThere)
        .toList();
  }
}
