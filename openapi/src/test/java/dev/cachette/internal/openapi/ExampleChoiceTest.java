// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Which example answers a request, and which stubs cannot be right. */
class ExampleChoiceTest {

  private static final Description HARBOUR = TestFiles.harbour();

  private static Request get(String path, Headers headers) {
    return new Request("GET", Uri.parse("https://marrow.example" + path), headers, Body.empty());
  }

  private static String answer(String path, String name, String value) {
    Headers headers = name == null ? Headers.none() : Headers.none().with(name, value);
    try {
      Response response = HARBOUR.example(get(path, headers));
      return response.status()
          + " "
          + response.headers().first("content-type").orElse("none")
          + " "
          + response.text();
    } catch (MalformedDescription none) {
      return none.problem();
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '"',
      value = {
        "                      |                                 | 200 application/json "
            + "{'kind':'quay','length':12}",
        "prefer                | example=taken                   | 200 application/json "
            + "{'kind':'buoy','depth':3}",
        "prefer                | \"\"\"code=200, example=\"\"x\"\"\"\"\" | the request prefers the"
            + " example \"\"x\"\", which is not here. Examples: free, taken.",
        "prefer                | code=404                        | 404"
            + " application/problem+json 'text'",
        "prefer                | code=503                        | 503 none ",
        "prefer                | code=302                        | the request prefers status 302,"
            + " which is not described. Described: 200, 404, 5XX.",
        "prefer                | example=sold                    | the request prefers the example"
            + " \"\"sold\"\", which is not here. Examples: free, taken.",
        "accept                | \"image/png\"                   | there is no example here, and"
            + " for image/png none is generated. Fix: add an example.",
        "accept                | \"image/*;q=0, application/json;q=0.1\" | 200 application/json "
            + "{'kind':'quay','length':12}",
        "accept                | \"application/json;q=0.2, image/png;q=0.1\" | 200 application/json"
            + " {'kind':'quay','length':12}",
        "accept                | application/xml                 | 200 application/json "
            + "{'kind':'quay','length':12}",
        "accept                | \"*/*\"                         | 200 application/json "
            + "{'kind':'quay','length':12}",
      })
  void theRequestChooses(String name, String value, String expected) {
    assertEquals(
        expected.replace("\"\"", "\"").replace('\'', '"').strip(),
        answer("/v1/berths/B-1", name, value == null ? "" : value.replace("\"\"", "\"")).strip());
  }

  @Test
  void headersAreThoseThatAreRequiredOrHaveAnExample() {
    Headers headers = HARBOUR.example(get("/v1/berths/B-1", Headers.none())).headers();
    assertEquals("3", headers.first("x-count").orElseThrow());
    assertEquals("true", headers.first("x-made").orElseThrow());
    assertFalse(headers.has("x-maybe"));
  }

  @Test
  void theDefaultResponseHasStatus200() {
    assertEquals("200 none ", answer("/v1/objects/x,1/x=1/;list=1", null, ""));
    assertEquals("204 none ", answer("/v1/open", null, ""));
  }

  @Test
  void aRefusalHasTheStatusThatIsDescribed() {
    Request booking =
        new Request(
            "POST", Uri.parse("https://marrow.example/v1/bookings"), Headers.none(), Body.empty());
    assertEquals(422, HARBOUR.statusOfRefusal(booking));
    assertEquals(400, HARBOUR.statusOfRefusal(get("/v1/open", Headers.none())));
    assertEquals(400, HARBOUR.statusOfRefusal(get("/nowhere", Headers.none())));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "GET    | /v1/open           | day       | ''",
        "GET    | /v1/open           | dya       | query dya",
        "GET    | /v1/berths/{id}    | ''        | ''",
        "GET    | /v1/berths/B-1     | ''        | ''",
        "GET    | /v1/{+rest}        | x         | ''",
        "*      | /v1/notes          | ''        | ''",
        "PATCH  | /v1/notes          | ''        | method",
        "GET    | /v1/nots           | ''        | path",
        "GET    | /v1/keys           | x         | query x",
      })
  void aStubIsForAnOperation(String method, String path, String query, String missed) {
    Set<String> asked = query.isEmpty() ? Set.of() : Set.of(query);
    List<String> found =
        HARBOUR.misfits(method, path, asked, List.of()).stream().map(it -> it.condition()).toList();
    assertEquals(missed.isEmpty() ? List.of() : List.of(missed), found);
  }

  @Test
  void anAnswerOfAStubIsChecked() {
    Response wrong = new Response(418, Headers.none(), Body.empty());
    assertEquals(
        "status", HARBOUR.misfits("PUT", "/v1/notes", Set.of(), List.of(wrong)).get(0).condition());
  }

  @Test
  void aServiceIsAtItsOrigin() {
    Described service = new Described("https://marrow.example", HARBOUR);
    Request request = get("/v1/open?day=1", Headers.none());
    assertTrue(service.isAt("marrow.example", 443));
    assertFalse(service.isAt("marrow.example", 80));
    assertTrue(service.isFor(request));
    assertFalse(service.answers(request));
    service.answerFromExamples();
    assertTrue(service.answers(request));
    assertFalse(service.answers(get("/nowhere", Headers.none())));
    Description other = TestFiles.described("openapi: 3.0.0");
    service.redescribe(other);
    assertEquals(other, service.description());
    assertEquals("https://marrow.example, described by a.yaml", service.toString());
  }
}
