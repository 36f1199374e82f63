// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.result.Check;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Violations name the place of a secret, and not the secret. */
class DescribedSecretsTest {

  private static final String SECRET = "hunter-12";

  private static final Description DESCRIBED =
      TestFiles.described(
          """
          openapi: 3.1.0
          paths:
            /a/{password}:
              parameters:
                - { name: password, in: path, schema: { maxLength: 1 } }
                - { name: api_key, in: query, schema: { type: integer } }
                - { name: code, in: query, schema: { format: date-time } }
                - { name: tokens, in: query, schema: { type: array, items: { type: integer } } }
                - { name: x-auth-token, in: header, schema: { maxLength: 2 } }
                - { name: session, in: cookie, schema: { enum: [ a ] } }
                - { name: credentials, in: query, style: deepObject,
                    schema: { type: object, properties: { pin: { type: integer } } } }
              post:
                requestBody:
                  content:
                    application/json: { schema: &all { type: object, properties: {
                      password: { format: date-time }, secret: { type: integer },
                      pins: { items: { maximum: 1 } } }, additionalProperties: false } }
                    application/x-www-form-urlencoded: { schema: *all }
                    multipart/form-data: { schema: *all }
                    text/plain: { schema: { type: string, maxLength: 3 } }
                responses:
                  "200":
                    headers: { set-cookie: { schema: { maxLength: 2 } } }
                    content: { application/json: { schema: *all } }
          """);

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "/a/hunter-12                     | ``                          | ``",
        "/a/x?api_key=hunter-12           | ``                          | ``",
        "/a/x?code=hunter-12              | ``                          | ``",
        "/a/x?tokens=1&tokens=hunter-12   | ``                          | ``",
        "/a/x?credentials[pin]=hunter-12  | ``                          | ``",
        "/a/x | x-auth-token: hunter-12   | ``",
        "/a/x | cookie: session=hunter-12 | ``",
        "/a/x | content-type: application/json | {\"password\": \"hunter-12\"}",
        "/a/x | content-type: application/json | {\"secret\": \"hunter-12\"}",
        "/a/x | content-type: application/json | {\"api_key\": \"hunter-12\"}",
        "/a/x | content-type: application/json | [{\"password\": \"hunter-12\"}]",
        "/a/x | content-type: application/x-www-form-urlencoded | password=hunter-12",
        "/a/x | content-type: text/plain | password=hunter-12",
      })
  void requestsAreChecked(String path, String header, String body) {
    assertHidden(DESCRIBED.refusals(request(path, header, body)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "set-cookie: session=hunter-12  | {}",
        "content-type: application/json | {\"password\": \"hunter-12\"}",
        "content-type: application/json | {\"pins\": [123456789], \"secret\": \"hunter-12\"}",
      })
  void responsesAreChecked(String header, String body) {
    Response response = new Response(200, headers(header), Body.of(body));
    assertHidden(DESCRIBED.impossible(request("/a/x", "", ""), response, true));
  }

  private static void assertHidden(List<Check> violations) {
    assertTrue(violations.toString().contains("****"), violations::toString);
    assertFalse(violations.toString().contains(SECRET), violations::toString);
  }

  private static Request request(String path, String header, String body) {
    return new Request(
        "POST", Uri.parse("https://marrow.example" + path), headers(header), Body.of(body));
  }

  private static Headers headers(String text) {
    String[] pair = text.split(": ", 2);
    return text.isEmpty() ? Headers.none() : Headers.none().with(pair[0], pair[1]);
  }
}
