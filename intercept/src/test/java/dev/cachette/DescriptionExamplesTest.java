// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.match.Values.is;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Descriptions in OpenAPI 3.1 whose examples answer; and those that cannot be used. */
class DescriptionExamplesTest {

  private static final String URL = "https://moorings.example/api";

  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open(Settings.defaults().stubFolder(Path.of("src/test/openapi")));
  }

  @AfterEach
  void close() {
    net.close();
  }

  private void describe() {
    net.describedBy("https://moorings.example", "moorings.openapi.json").answeringFromExamples();
  }

  @Test
  void callsWithoutAStubGetAnExample() throws Exception {
    describe();
    net.stub("GET " + URL + "/made-up").json("$.a", is(1)).answer(json("{}"));

    assertEquals("free: 3", get("/given", "*/*").body());
    assertEquals("{\"free\":3}", get("/given", "application/*").body());
    assertEquals("<free>3</free>", get("/given", "text/plain;q=0.1, application/xml").body());
    HttpResponse<String> given = get("/given", "image/png, text/plain;q=0");
    assertEquals(200, given.statusCode());
    assertEquals("text/plain", given.headers().firstValue("content-type").orElseThrow());
    assertEquals("4", given.headers().firstValue("x-made").orElseThrow());
    assertEquals("yes", given.headers().firstValue("x-given").orElseThrow());
    HttpRequest delete = HttpRequest.newBuilder(URI.create(URL + "/nothing")).DELETE().build();
    assertEquals(200, Calling.send(HttpClient.newHttpClient(), delete).statusCode());
    assertEquals(
        "\"the example of GET /given\" (src/test/openapi/moorings.openapi.json:9)",
        net.calls().first().stub().orElseThrow().toString());
  }

  @Test
  void aValueIsMadeUpThatFitsTheSchema() throws Exception {
    describe();

    assertEquals(
        "{\"id\":\"6f1c2b1e-5f0a-4c7e-9d3b-2a8e4c6d0b12\",\"day\":\"2031-04-02\",\"buoy\":\"red\","
            + "\"kind\":\"deep\",\"length\":5,\"places\":-2,\"name\":\"textxx\",\"short\":\"te\","
            + "\"default\":\"given\",\"example\":\"one\",\"free\":true,\"ropes\":[1,1],"
            + "\"either\":{\"a\":1},\"both\":{\"name\":\"Old Pier\",\"b\":true},\"again\":[]}",
        get("/made-up", "*/*").body());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "code=404                    | 404 | {\"title\":\"no such mooring\"}",
        "example=free                | 200 | {\"free\":3}",
        "example=\"free\"          | 200 | {\"free\":3}",
        "respond-async, Code = 503   | 503 | ~~",
        "code=200; example=full      | 200 | {\"free\":0}",
        "code=many                   | 200 | {\"free\":0}",
        "return=minimal              | 200 | {\"free\":0}",
      })
  void aRequestMayPreferAStatusOrAnExample(String prefer, int status, String body)
      throws Exception {
    describe();
    HttpResponse<String> response = preferring(prefer);
    assertEquals(status, response.statusCode(), response.body());
    assertEquals(body == null ? "" : body, response.body());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "code=418     | the request prefers status 418, which is not described. Described: 200,"
            + " 404, 5XX.",
        "example=none | the request prefers the example \"none\", which is not here. Examples:"
            + " full, free.",
      })
  void aPreferenceThatIsNotDescribedIsNamed(String prefer, String said) throws Exception {
    describe();
    String text = preferring(prefer).body();
    assertTrue(text.contains(said), text);
    assertThrows(AssertionError.class, net::reset);
  }

  private static HttpResponse<String> preferring(String preference) throws Exception {
    return Calling.send(
        HttpClient.newHttpClient(),
        HttpRequest.newBuilder(URI.create(URL + "/several")).header("prefer", preference).build());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '~',
      value = {
        "^B-[0-9]{2}$;                                   4",
        "^[({|]{3}\\\\(a{2}\\\\)$;                        7",
        "^[a-cx]{3}(no|yes){0}$;                         3",
        "^(?:a|b){5}[^]]?$;                              5",
        "^(a{100}){100}$;                                10000",
        "^((((a{1,1000}){1,1000}){1,1000}){1,1000}|b)$;  -1",
        "^(a{99999}){99999}$;                            -1",
        "^((((((((a*)*)*)*)*)*)*)*)*$;                   -1",
        "^a{2000000000}$;                                -1",
        "^a{99999999999999999999}$;                      -1",
        "^(a;                                            -1",
        "^[a;                                            -1",
      })
  void aPatternIsGeneratedUnlessItIsTooLong(String pattern, int length, @TempDir Path folder)
      throws Exception {
    Files.writeString(
        folder.resolve("buoys.json"),
        String.format(
            "{\"openapi\": \"3.1.0\", \"paths\": {\"/buoy\": {\"get\": {\"responses\": {\"200\": {"
                + " \"content\": {\"application/json\": {\"schema\": {\"type\": \"string\","
                + " \"pattern\": \"%s\"}}}}}}}}}",
            pattern));
    net.close();
    net =
        Cachette.open(Settings.defaults().stubFolder(folder).unexpectedCalls(UnexpectedCalls.WARN));
    net.describedBy("https://buoys.example", "buoys.json").answeringFromExamples();

    String body = Calling.get("https://buoys.example/buoy").body();

    if (length < 0) {
      assertTrue(body.contains("The API description"), body);
      assertThrows(AssertionError.class, net::reset);
    } else {
      assertTrue(Math.abs(length + 2 - body.length()) <= 1, body);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "/pattern | The API description has no example | because of $: expected pattern",
        "/wrong   | Its example returns a response that violates | actual    \"three\"",
        "/picture | The API description has no example | for image/png none is generated",
        "/broken  | The API description cannot be used | expected a schema, found",
        "/none    | Unexpected call: GET                             | expected  /api/made-up",
      })
  void aMissingExampleIsExplained(String path, String start, String cause) throws Exception {
    describe();

    String text = get(path, "*/*").body();

    assertTrue(text.startsWith(start) && text.contains(cause), text);
    assertThrows(AssertionError.class, net::reset);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "openapi: [                                   | :1: not valid YAML",
        "''                                           | openapi is missing",
        "swagger: '2.0'                               | Swagger 2.0, which is not supported",
        "openapi: 4.0.0                               | openapi is 4.0.0.",
        "openapi: 3.1.0; servers: [{url: 'http://:x'}] | :2: /servers/0: \"http://:x\" has no host",
        "openapi: 3.1.0; paths: {/a: {$ref: '#/b'}}   | :2: /paths/~1a: nothing found at",
        "openapi: 3.1.0; paths: {/a: {$ref: 'other.yaml'}}  | there is no file",
        "openapi: 3.1.0; paths: {/a: {$ref: 'https://a.example/b'}}  | is on the network",
        "openapi: 3.1.0; paths: {/a: {get: {parameters: [{in: query}]}}} | a parameter must have a"
            + " name",
        "openapi: 3.1.0; paths: {/a: {get: {parameters: [{name: a, in: b}]}}} | not \"b\"",
        "openapi: 3.1.0; paths: {/a: {get: {security: [{key: []}]}}} | unknown security scheme"
            + " \"key\"",
      })
  void aMalformedDescriptionIsReportedWithItsPlace(
      String text, String problem, @TempDir Path folder) throws Exception {
    Path file = Files.writeString(folder.resolve("a.yaml"), text.replace("; ", "\n"));

    IllegalArgumentException malformed =
        assertThrows(
            IllegalArgumentException.class,
            () -> net.describedBy("https://a.example", file.toString()));

    assertTrue(malformed.getMessage().contains(problem.strip()), malformed.getMessage());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "https://a.example | morings.openapi.json | did you mean \"moorings.openapi.json\"?",
        "a.example | moorings.openapi.json | An origin is a scheme, a host",
      })
  void wrongArgumentsAreTold(String origin, String name, String problem) {
    IllegalArgumentException wrong =
        assertThrows(IllegalArgumentException.class, () -> net.describedBy(origin, name));

    assertTrue(wrong.getMessage().contains(problem), wrong.getMessage());
  }

  private static HttpResponse<String> get(String path, String accept) throws Exception {
    return Calling.send(
        HttpClient.newHttpClient(),
        HttpRequest.newBuilder(URI.create(URL + path)).header("accept", accept).build());
  }
}
