// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertAll;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.identity.option.IdentityRule;
import java.net.http.HttpResponse;
import java.util.Base64;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** Clients that break a rule get an error, and their test fails with the reason. */
class IdentityRulesTest {

  /** What a client does. */
  private interface Misuse {
    HttpResponse<String> by(TestClient client, IdentityProvider id) throws Exception;
  }

  private static Arguments breaks(
      IdentityRule rule, String name, String status, String text, Misuse misuse) {
    return Arguments.of(rule, name, status, text, misuse);
  }

  static Stream<Arguments> challenges() {
    return Stream.of(
        breaks(
            IdentityRule.PKCE,
            "another verifier",
            "400 invalid_grant",
            "expected  the verifier of the challenge ",
            (client, id) ->
                client.post(
                    "/token", client.redemption(client.code(), "code_verifier", "v".repeat(43)))),
        breaks(
            IdentityRule.PKCE,
            "no verifier",
            "400 invalid_grant",
            "actual    missing",
            (client, id) ->
                client.post("/token", client.redemption(client.code(), "code_verifier", ""))),
        breaks(
            IdentityRule.PKCE,
            "a verifier without a challenge",
            "400 invalid_grant",
            "expected  missing, as the authorization request had no challenge",
            (client, id) ->
                client.post(
                    "/token",
                    client.redemption(
                        client.code("code_challenge", "", "code_challenge_method", "")))),
        breaks(
            IdentityRule.PKCE,
            "a plain challenge",
            "302 invalid_request",
            "actual    plain",
            (client, id) ->
                client.get(
                    "/authorize",
                    client.authorization(
                        "code_challenge", client.verifier(), "code_challenge_method", "plain"))));
  }

  static Stream<Arguments> publicClientsAndRedirects() {
    return Stream.of(
        breaks(
            IdentityRule.PKCE,
            "a public client without a challenge",
            "302 invalid_request",
            "expected  the S256 challenge of a verifier",
            (client, id) -> {
              id.client("app");
              return client.get(
                  "/authorize",
                  client.authorization(
                      "client_id", "app", "code_challenge", "", "code_challenge_method", ""));
            }),
        breaks(
            IdentityRule.REDIRECT_URI,
            "an unregistered redirect URI",
            "400 Error: invalid_request",
            "actual    https://desk.example/signed-in/",
            (client, id) ->
                client.get(
                    "/authorize", client.authorization("redirect_uri", TestClient.REDIRECT + "/"))),
        breaks(
            IdentityRule.REDIRECT_URI,
            "another redirect URI with the code",
            "400 invalid_grant",
            "expected  https://desk.example/signed-in\n",
            (client, id) ->
                client.post(
                    "/token",
                    client.redemption(
                        client.code(), "redirect_uri", "https://desk.example/other"))),
        breaks(
            IdentityRule.REDIRECT_URI,
            "no redirect URI with the code",
            "400 invalid_grant",
            "actual    missing",
            (client, id) ->
                client.post("/token", client.redemption(client.code(), "redirect_uri", ""))));
  }

  static Stream<Arguments> codesAndSecrets() {
    return Stream.of(
        breaks(
            IdentityRule.CODE_ONCE,
            "a code twice",
            "400 invalid_grant",
            "actual    one that was redeemed before",
            (client, id) -> {
              String code = client.code();
              assertEquals(200, client.post("/token", client.redemption(code)).statusCode());
              return client.post("/token", client.redemption(code));
            }),
        breaks(
            IdentityRule.CODE_ONCE,
            "a code of another client",
            "400 invalid_grant",
            "expected  a code of tug-desk",
            (client, id) -> {
              id.client("tug-desk").secret("s3cret-of-tugs");
              return client.post(
                  "/token",
                  client.redemption(
                      client.code(), "client_id", "tug-desk", "client_secret", "s3cret-of-tugs"));
            }),
        breaks(
            IdentityRule.STATE,
            "no state",
            "302 ",
            "NO   state",
            (client, id) -> client.get("/authorize", client.authorization("state", ""))),
        breaks(
            IdentityRule.CLIENT_AUTHENTICATION,
            "a wrong secret",
            "401 invalid_client",
            "expected  the secret of harbour-desk",
            (client, id) ->
                client.post(
                    "/token", client.redemption(client.code(), "client_secret", "wr0ng-secret"))),
        breaks(
            IdentityRule.CLIENT_AUTHENTICATION,
            "no secret",
            "401 invalid_client",
            "expected  client_secret_basic or client_secret_post",
            (client, id) ->
                client.post("/token", client.redemption(client.code(), "client_secret", ""))));
  }

  static Stream<Arguments> clients() {
    return Stream.of(
        breaks(
            IdentityRule.CLIENT_AUTHENTICATION,
            "an unknown client",
            "401 invalid_client",
            "expected  one of harbour-desk",
            (client, id) ->
                client.post("/token", client.redemption(client.code(), "client_id", "stranger"))),
        breaks(
            IdentityRule.CLIENT_AUTHENTICATION,
            "an unknown client at the page",
            "400 Error: unauthorized_client",
            "actual    stranger",
            (client, id) ->
                client.get("/authorize", client.authorization("client_id", "stranger"))),
        breaks(
            IdentityRule.CLIENT_AUTHENTICATION,
            "a wrong secret as Basic",
            "401 invalid_client",
            "actual    another one",
            (client, id) ->
                client.post(
                    "/token",
                    Map.of("grant_type", "client_credentials"),
                    "authorization",
                    "Basic "
                        + Base64.getEncoder().encodeToString("harbour-desk:wr0ng".getBytes()))),
        breaks(
            IdentityRule.CLIENT_AUTHENTICATION,
            "a public client for itself",
            "400 unauthorized_client",
            "expected  a client with credentials",
            (client, id) -> {
              id.client("app");
              return client.post(
                  "/token", Map.of("grant_type", "client_credentials", "client_id", "app"));
            }));
  }

  static Stream<Arguments> secretsInUrlsAndRefreshTokens() {
    return Stream.of(
        breaks(
            IdentityRule.NOTHING_SECRET_IN_URLS,
            "a token in the URL",
            "400 ",
            "actual    in the URL",
            (client, id) ->
                client.get(
                    "/userinfo",
                    Map.of("access_token", client.tokens().path("access_token").asText()))),
        breaks(
            IdentityRule.NOTHING_SECRET_IN_URLS,
            "a secret in the URL",
            "400 invalid_request",
            "NO   client_secret",
            (client, id) ->
                client.post(
                    "/token?client_secret=s3cret-of-the-desk",
                    client.redemption(client.code(), "client_secret", ""))),
        breaks(
            IdentityRule.REFRESH_TOKEN_ONCE,
            "a refresh token twice",
            "400 invalid_grant",
            "actual    one that was used before",
            (client, id) -> {
              Map<String, String> refresh =
                  TestClient.changed(
                      client.redemption(""),
                      "grant_type",
                      "refresh_token",
                      "refresh_token",
                      client.tokens().path("refresh_token").asText(),
                      "code",
                      "");
              assertEquals(200, client.post("/token", refresh).statusCode());
              return client.post("/token", refresh);
            }));
  }

  @ParameterizedTest(name = "{1}")
  @MethodSource({
    "challenges",
    "publicClientsAndRedirects",
    "codesAndSecrets",
    "clients",
    "secretsInUrlsAndRefreshTokens"
  })
  void brokenRulesFailTheTest(
      IdentityRule rule, String name, String status, String text, Misuse misuse) throws Exception {
    Cachette net = Cachette.open();
    assertEquals(status, outcome(misuse.by(new TestClient(), declared(net))));

    String message = assertThrows(AssertionFailedError.class, net::close).getMessage();
    assertAll(
        () ->
            assertTrue(
                message.startsWith(
                    "The code under test uses the identity provider https://id.example wrongly."),
                message),
        () -> assertTrue(message.contains(text), message),
        () -> assertTrue(message.contains("Fix: "), message),
        () -> assertTrue(message.contains("allow(IdentityRule." + rule + ")"), message),
        () -> assertTrue(!message.contains("s3cret") && !message.contains("wr0ng"), message));
  }

  @ParameterizedTest(name = "{1}")
  @MethodSource({
    "challenges",
    "publicClientsAndRedirects",
    "codesAndSecrets",
    "clients",
    "secretsInUrlsAndRefreshTokens"
  })
  void allowedMisuseDoesNot(
      IdentityRule rule, String name, String status, String text, Misuse misuse) throws Exception {
    try (Cachette net = Cachette.open()) {
      HttpResponse<String> response = misuse.by(new TestClient(), declared(net).allow(rule));
      boolean isGranted = rule == IdentityRule.PKCE && status.startsWith("302");
      assertEquals(isGranted ? "302 " : status, outcome(response));
    }
  }

  private static IdentityProvider declared(Cachette net) {
    IdentityProvider id = IdentityProvider.open(net, TestClient.ISSUER);
    id.user("mara");
    id.client("harbour-desk").secret("s3cret-of-the-desk").redirectUris(TestClient.REDIRECT);
    return id;
  }

  /** The status, and the error code wherever it is. */
  private static String outcome(HttpResponse<String> response) throws Exception {
    String type = response.headers().firstValue("content-type").orElse("");
    String error = new HashMap<>(TestClient.redirected(response)).getOrDefault("error", "");
    if (type.startsWith("application/json")) {
      error = TestClient.json(response).path("error").asText();
    } else if (type.startsWith("text/html")) {
      error = response.body().replaceAll("(?s).*<h1>(.*)</h1>.*", "$1");
    }
    return response.statusCode() + " " + error;
  }
}
