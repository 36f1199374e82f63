// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A secret in a stub is not written again, wherever it is; what is not secret is. */
class MaskedStubsTest {

  private static final String SECRET = "kV7-tide-9Q2x-unkn0wn";

  /** Each has the secret once, and nothing else that is masked. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "request: GET /v1/berths?api_key=SECRET, answer: 204",
        "request: GET /v1, headers: {authorization: Bearer SECRET}, answer: 204",
        "request: GET /v1, headers: {x-api-key: SECRET}, answer: 204",
        "request: GET /v1, headers: {x-api-key: {pattern: SECRET}}, answer: 204",
        "request: GET /v1, headers: {x-api-key: {oneOf: [SECRET, other]}}, answer: 204",
        "request: GET /v1, headers: {cookie: 'sid=SECRET'}, answer: 204",
        "request: GET /v1, cookies: {sid: SECRET}, answer: 204",
        "request: GET /v1, cookies: {sid: {startsWith: SECRET}}, answer: 204",
        "request: GET /v1, query: {access_token: SECRET}, answer: 204",
        "request: GET /v1, bearer: SECRET, answer: 204",
        "request: GET /v1, bearer: {contains: SECRET}, answer: 204",
        "request: GET /v1, basic: {user: anna, password: SECRET}, answer: 204",
        "request: POST /v1, form: {client_secret: SECRET}, answer: 204",
        "request: POST /v1, json: {$.password: SECRET}, answer: 204",
        "request: POST /v1, json: {\"$['old password']\": SECRET}, answer: 204",
        "request: POST /v1, json: {/user/password: SECRET}, answer: 204",
        "request: POST /v1, xpath: {//password: SECRET}, answer: 204",
        "request: POST /v1, body: {sameJson: {password: SECRET}}, answer: 204",
        "request: POST /v1, body: {containsJson: {a: [{token: SECRET}]}}, answer: 204",
        "request: POST /v1, body: {sameXml: <a><password>SECRET</password></a>}, answer: 204",
        "request: POST /v1, body: {text: 'password=SECRET'}, answer: 204",
        "request: GET /v1, anyOf: [{bearer: SECRET}, {cookies: {a: SECRET}}], answer: 204",
        "request: GET /v1, not: {headers: {authorization: Bearer SECRET}}, answer: 204",
        "request: GET /v1, where: [{cookies: {a: SECRET}}], answer: 204",
        "request: GET /v1, answer: {json: {access_token: SECRET}}",
        "request: GET /v1, answer: {text: 'password: SECRET'}",
        "request: GET /v1, answer: {xml: <a><password>SECRET</password></a>}",
        "request: GET /v1, answer: {status: 204, headers: {set-cookie: sid=SECRET}}",
        "request: GET /v1, answer: {status: 204, headers: {x-api-key: SECRET}}",
        "request: GET /v1, answers: [{json: {token: SECRET}}, {json: {token: SECRET}}]"
      })
  void itIsMasked(String stub) {
    try (Cachette net = Cachette.open(Settings.defaults().unusedStubs(UnusedStubs.IGNORE))) {
      StubFiles declared = net.declare("stubs: {" + stub.replace("SECRET", SECRET) + "}");

      String all = net.toStubFile();
      String one = declared.stubs().get(0).toStubFile();

      assertFalse(all.contains(SECRET), all);
      assertFalse(one.contains(SECRET), one);
      assertTrue(all.contains("****") && all.contains("# **** replaces a secret"), all);
      assertFalse(declared.stubs().get(0).toString().contains(SECRET));
    }
  }
}
