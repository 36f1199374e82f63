// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.result.Check;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** News of OpenAPI 3.2: methods, whole queries, sequences, and a default for choices. */
class OpenApi32Test {

  private static final Description DESCRIBED =
      TestFiles.described(
          """
          openapi: 3.2.0
          $self: https://docs.example/tides
          info: { title: Tides, version: "1" }
          paths:
            /tides:
              query:
                requestBody: { content: { application/json: { schema: { required: [ day ] } } } }
                responses: { "204": { description: "" } }
              additionalOperations:
                COPY: { responses: { "201": { description: "" } } }
            /search:
              get:
                parameters:
                  - name: all
                    in: querystring
                    required: true
                    content:
                      application/x-www-form-urlencoded:
                        schema:
                          required: [ day ]
                          properties: { day: { type: integer }, unit: { enum: [ m, ft ] } }
                responses: { "204": { description: "" } }
            /filter:
              get:
                parameters:
                  - { name: all, in: querystring,
                      content: { application/json: { schema: { required: [ day ] } } } }
                responses: { "204": { description: "" } }
            /log:
              get:
                responses:
                  "200":
                    content:
                      application/jsonl: { itemSchema: { $ref: "#/components/schemas/Entry" } }
                      application/x-ndjson: { schema: { $ref: "#/components/schemas/Entry" } }
                      application/json-seq:
                        { schema: { type: array, items: { type: integer }, maxItems: 2 } }
                      text/event-stream: { itemSchema: { required: [ data ] } }
            /choice:
              get:
                responses:
                  "200":
                    content:
                      application/json:
                        schema: { $ref: "#/components/schemas/Berth" }
                        examples: { one: { dataValue: { kind: buoy, depth: 3 } } }
          components:
            schemas:
              Entry: { type: object, required: [ at ], properties: { at: { type: integer } } }
              Berth:
                oneOf:
                  - { $ref: "#/components/schemas/Quay" }
                  - { $ref: "#/components/schemas/Buoy" }
                discriminator: { propertyName: kind, mapping: { quay: Quay, buoy: Buoy },
                  defaultMapping: Quay }
              Quay: { type: object, required: [ length ] }
              Buoy: { type: object, required: [ depth ] }
          """);

  private static String said(List<Check> checks) {
    return checks.stream()
        .flatMap(
            check ->
                check.differences().stream()
                    .map(it -> check.condition() + " " + it.at() + ": " + it.expected()))
        .map(text -> text.replaceAll(" +\\(a\\.yaml:\\d+\\)", ""))
        .collect(Collectors.joining("; "));
  }

  private static Request request(String method, String path, String type, String body) {
    Headers headers = type.isEmpty() ? Headers.none() : Headers.none().with("content-type", type);
    return new Request(method, Uri.parse("https://tides.example" + path), headers, Body.of(body));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "QUERY | /tides                | {\"day\":1} | ``",
        "QUERY | /tides                | {}          | body $: required \"day\"",
        "COPY  | /tides                | ``          | ``",
        "GET   | /tides                | ``          | method : QUERY or COPY",
        "GET   | /search?day=1&unit=ft | ``          | ``",
        "GET   | /search?day=one&unit=in&more=1 | `` | querystring all $.day: type \"integer\";"
            + " querystring all $.unit: enum [\"m\",\"ft\"]",
        "GET   | /search?unit=m        | ``          | querystring all : required \"day\"",
        "GET   | /search               | ``          | querystring all : present, because it is"
            + " required",
        "GET   | /filter?%7B%22day%22:1%7D | ``      | ``",
        "GET   | /filter?%7B%7D        | ``          | querystring all : required \"day\"",
        "GET   | /filter               | ``          | ``",
      })
  void requestsAreChecked(String method, String path, String body, String expected) {
    String type = body.isEmpty() ? "" : "application/json";
    assertEquals(expected, said(DESCRIBED.refusals(request(method, path, type, body))));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "/log    | application/jsonl    | {\"at\":1}~{\"at\":2}~   | ``",
        "/log    | application/jsonl    | {\"at\":1}~{\"at\":\"2\"}~{} | body $[1].at: type"
            + " \"integer\"; body $[2]: required \"at\"",
        "/log    | application/jsonl    | {\"at\":1}~{           | body : application/jsonl",
        "/log    | application/x-ndjson | {\"at\":1}~{\"on\":1}  | body $[1]: required \"at\"",
        "/log    | application/json-seq | 1~2                    | ``",
        "/log    | application/json-seq | 1~2~\"3\"              | body $: maxItems 2; body $[2]:"
            + " type \"integer\"",
        "/log    | text/event-stream    | data: 1~~              | ``",
        "/choice | application/json     | {\"kind\":\"buoy\",\"depth\":1}  | ``",
        "/choice | application/json     | {\"kind\":\"buoy\",\"length\":1} | body $: required"
            + " \"depth\"",
        "/choice | application/json     | {\"kind\":\"pier\",\"length\":1} | ``",
        "/choice | application/json     | {\"length\":1}         | ``",
        "/choice | application/json     | {\"depth\":1}          | body $: required \"length\"",
      })
  void responsesAreChecked(String path, String type, String body, String expected) {
    Response response =
        new Response(
            200, Headers.none().with("content-type", type), Body.of(body.replace("~", "\n")));
    assertEquals(
        expected, said(DESCRIBED.impossible(request("GET", path, "", ""), response, true)));
  }

  @Test
  void examplesAreFoundOrMade() {
    assertEquals(
        "{\"kind\":\"buoy\",\"depth\":3}",
        DESCRIBED.example(request("GET", "/choice", "", "")).text());
    Response lines = DESCRIBED.example(request("GET", "/log", "", ""));
    assertEquals("application/jsonl", lines.headers().first("content-type").orElseThrow());
    assertTrue(lines.text().matches("\\{\"at\":\\d+}\\n"), lines::text);
    assertEquals(List.of(), DESCRIBED.problems());
  }
}
