// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.json.Json;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Needs that an API description does not promise, and promises that no consumer uses. */
class PromisesTest {

  static Stream<Arguments> promises() {
    return Arrays.stream(TestFiles.resource("promises.txt").split("\n\n"))
        .map(it -> it.lines().filter(line -> !line.startsWith("#")).toList())
        .filter(it -> !it.isEmpty())
        .map(it -> Arguments.of(it.get(0), it.get(1), String.join("\n", it.subList(2, it.size()))));
  }

  @ParameterizedTest
  @MethodSource("promises")
  void eachShapeIsCompared(String schema, String shape, String expected) {
    Description description =
        describing("content: { application/json: { schema: " + schema + " } }");
    NeededResponse needed =
        new NeededResponse(200, "application/json", Set.of(), Optional.of(Json.tree(shape)));

    assertEquals(expected, said(description.unpromised(request("GET", "/v1/berths"), needed)));
  }

  @Test
  void statusMediaTypeAndHeadersAreCompared() {
    Description description =
        describing(
            "content: { application/json: {} }, headers: { ETag: { required: true, schema: {} },"
                + " Link: { schema: {} } }");
    Request get = request("GET", "/v1/berths");

    assertEquals(
        "204, it has 200, 404",
        said(description.unpromised(get, new NeededResponse(204, "", Set.of(), Optional.empty()))));
    assertEquals(
        "text/csv, it is application/json",
        said(
            description.unpromised(
                get, new NeededResponse(200, "text/csv", Set.of("etag"), Optional.empty()))));
    assertEquals(
        "text/csv, it has no content",
        said(
            description.unpromised(
                get, new NeededResponse(404, "text/csv", Set.of(), Optional.empty()))));
    for (Map.Entry<String, String> header :
        Map.of("link", "it is optional", "x-count", "it is not described").entrySet()) {
      assertEquals(
          "always present, " + header.getValue(),
          said(
              description.unpromised(
                  get,
                  new NeededResponse(
                      200, "application/json", Set.of(header.getKey()), Optional.empty()))));
    }
    assertEquals(
        "",
        said(
            description.unpromised(
                request("GET", "/v1/none"),
                new NeededResponse(204, "", Set.of(), Optional.empty()))));
  }

  @Test
  void whatNoConsumerUsesHasItsPlace() {
    Description description =
        describing(
            "content: { application/json: { schema: { type: array, items: { type: object,"
                + " properties: { a: { type: object, properties: { x: {}, y: {} } }, b: {} } } } }"
                + " }");
    JsonNode shape =
        Json.tree(
            "{\"type\":\"array\",\"items\":{\"properties\":{\"a\":{\"properties\":{\"x\":{}}}}}}");
    Map<Request, List<NeededResponse>> uses = new LinkedHashMap<>();
    uses.put(
        request("GET", "/v1/berths"),
        List.of(new NeededResponse(200, "application/json", Set.of(), Optional.of(shape))));

    assertEquals(
        """
        GET /berths, response 200, $[*].a.y
        GET /berths, response 200, $[*].b
        GET /berths, response 404
        DELETE /berths\
        """,
        description.unused(uses).stream()
            .map(StubReference::name)
            .collect(Collectors.joining("\n")));
    assertEquals(
        List.of("GET /berths", "DELETE /berths"),
        description.unused(Map.of()).stream().map(StubReference::name).toList());
    assertEquals(8, description.unused(Map.of()).get(1).line());
  }

  private static Description describing(String response) {
    return TestFiles.described(
        """
        openapi: 3.1.0
        info: { title: Berths, version: "1" }
        servers: [ { url: https://berths.example/v1 } ]
        paths:
          /berths:
            get: { responses: { "200": { description: "", %s }, "404": { description: "" } } }
            # Nobody calls it.
            delete: { responses: { "204": { description: "" } } }
        components:
          schemas:
            Loop:
              type: object
              required: [next]
              properties: { next: { $ref: "#/components/schemas/Loop" } }
        """
            .formatted(response));
  }

  private static Request request(String method, String path) {
    return new Request(
        method, Uri.parse("https://berths.example" + path), Headers.none(), Body.empty());
  }

  /** Returns place, needed and promised of each finding, without the place in the description. */
  private static String said(List<Check> checks) {
    return checks.stream()
        .flatMap(it -> it.differences().stream())
        .map(
            it ->
                (it.at().isEmpty() ? "" : it.at() + ": ")
                    + it.expected()
                    + ", "
                    + it.actual().replaceAll(" +\\([^(]*\\)$", ""))
        .collect(Collectors.joining("\n"));
  }
}
