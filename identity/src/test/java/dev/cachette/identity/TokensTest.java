// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.nimbusds.jose.crypto.factories.DefaultJWSVerifierFactory;
import com.nimbusds.jose.jwk.AsymmetricJWK;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.JWT;
import com.nimbusds.jwt.JWTParser;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.answer.Answers;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.identity.option.IdentityRule;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** What becomes of tokens: wrong ones, resources, introspection, revocation, logout. */
class TokensTest {

  private static final String FORM = "application/x-www-form-urlencoded";
  private static final String BOOKINGS = "https://berths.example/v1/bookings";

  private final Cachette net = Cachette.open();
  private final TestClient client = new TestClient();
  private IdentityProvider id;

  @BeforeEach
  void declare() {
    net.clock().stop();
    id = IdentityProvider.open(net, TestClient.ISSUER);
    id.user("mara").claim("email", "mara@marrow-bay.example");
    id.client("harbour-desk").secret("s3cret-of-the-desk");
    net.stub("GET " + BOOKINGS)
        .bearer(id.token().withScope("berths:read").withAudience("harbour-desk"))
        .answer(Answers.json("[]"));
  }

  @AfterEach
  void nothingWasWrong() {
    net.close();
  }

  /** How a token is wrong, as its holder can see. */
  private String wrong(String token, JWKSet published, Instant now) throws Exception {
    JWT parsed = JWTParser.parse(token);
    JsonNode claims = TestClient.claims(token);
    if (!(parsed instanceof SignedJWT signed)) {
      return "UNSIGNED";
    }
    JWK key = published.getKeyByKeyId(signed.getHeader().getKeyID());
    if (key == null) {
      return "UNKNOWN_KEY";
    }
    if (!signed.verify(
        new DefaultJWSVerifierFactory()
            .createJWSVerifier(signed.getHeader(), ((AsymmetricJWK) key).toPublicKey()))) {
      return "WRONG_SIGNATURE";
    }
    if (!claims.path("iss").asText().equals(TestClient.ISSUER)) {
      return "WRONG_ISSUER";
    }
    if (!claims.path("aud").asText().equals("harbour-desk")) {
      return "WRONG_AUDIENCE";
    }
    if (claims.path("exp").asLong() <= now.getEpochSecond()) {
      return "EXPIRED";
    }
    if (claims.path("nbf").asLong() > now.getEpochSecond()) {
      return "NOT_YET_VALID";
    }
    return claims.path("nonce").asText().equals("n-1") ? "" : "WRONG_NONCE";
  }

  @ParameterizedTest
  @EnumSource
  void plannedFaultsAreInTheTokens(IdentityFault fault) throws Exception {
    JWKSet published = JWKSet.parse(client.get("/jwks", Map.of()).body());
    String code = client.code();
    if (!fault.code().isEmpty()) {
      return;
    }
    id.next(fault);
    JsonNode tokens = TestClient.json(client.post("/token", client.redemption(code)));
    Instant now = net.clock().instant();
    assertEquals(fault.name(), wrong(tokens.path("id_token").asText(), published, now));
    assertEquals("", wrong(client.tokens().path("id_token").asText(), published, now));
    if (fault != IdentityFault.WRONG_NONCE) {
      String access = tokens.path("access_token").asText();
      assertEquals(fault.name(), wrong(access, published, now));
      assertEquals(401, bookings(access).statusCode());
    }
  }

  @Test
  void unavailableIsEachEndpoint() throws Exception {
    id.always(IdentityFault.UNAVAILABLE);
    assertEquals(503, client.get("/jwks", Map.of()).statusCode());
    assertEquals(503, client.get("/authorize", client.authorization()).statusCode());
    try (Cachette.Scope next = net.scope()) {
      assertEquals(200, client.get("/jwks", Map.of()).statusCode());
    }
  }

  private HttpResponse<String> bookings(String token) throws Exception {
    return client.get(BOOKINGS, Map.of(), "authorization", "Bearer " + token);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "berths:read | 200 |",
        "berths:read berths:write | 200 |",
        "tides:read | 403 | insufficient_scope",
      })
  void resourcesAcceptValidTokensOnly(String scopes, int status, String error) throws Exception {
    HttpResponse<String> response = bookings(id.accessToken("mara", scopes.split(" ")));
    assertEquals(status, response.statusCode());
    String challenge = response.headers().firstValue("www-authenticate").orElse("");
    assertEquals(error != null, challenge.contains("error=\"" + error + "\""), challenge);
    net.calls("GET " + BOOKINGS).assertCount(1);
  }

  @Test
  void requestsWithoutTokenGetNoError() throws Exception {
    HttpResponse<String> response = client.get(BOOKINGS, Map.of());
    assertEquals(401, response.statusCode());
    assertEquals(
        "Bearer scope=\"berths:read\"",
        response.headers().firstValue("www-authenticate").orElse(""));
  }

  @Test
  void idTokensAreNoAccessTokens() throws Exception {
    HttpResponse<String> response = bookings(id.idToken("mara", "harbour-desk"));
    assertEquals(401, response.statusCode());
    String challenge = response.headers().firstValue("www-authenticate").orElse("");
    assertTrue(challenge.contains("it is an ID token, not an access token"), challenge);
  }

  @Test
  void providersShareAHost() throws Exception {
    for (String realm : new String[] {"/realms/harbour", "/realms/tugs"}) {
      IdentityProvider.open(net, TestClient.ISSUER + realm).user("olin");
    }
    for (String realm : new String[] {"/realms/harbour", "", "/realms/tugs"}) {
      JsonNode metadata =
          TestClient.json(client.get(realm + "/.well-known/openid-configuration", Map.of()));
      assertEquals(TestClient.ISSUER + realm, metadata.path("issuer").asText());
    }
    HttpResponse<String> rfc8414 =
        client.get("/.well-known/oauth-authorization-server/realms/tugs", Map.of());
    assertEquals(
        TestClient.ISSUER + "/realms/tugs", TestClient.json(rfc8414).path("issuer").asText());
  }

  /** What a hurried or hostile client may send. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "/token | | 401",
        "/token | grant_type | 401",
        "/token | grant_type=%zz&client_id=%00 | 401",
        "/token | grant_type=refresh_token&{credentials}" + " | 400",
        "/token |" + " grant_type=authorization_code&{credentials}&code=" + " | 400",
        "/introspect | {credentials} | 400",
        "/revoke | {credentials}&token=a.b.c | 200",
        "/authorize | client_id=harbour-desk | 400",
        "/authorize | client_id=harbour-desk&redirect_uri=%7Bdesk%7D | 400",
        "/authorize | client_id=harbour-desk&redirect_uri=https://desk.example/%23here | 400",
        "/authorize | client_id=harbour-desk&redirect_uri=https://desk.example/ | 302",
        "/logout | id_token_hint=%3Cscript%3E | 400",
      })
  void malformedFormsAreRefused(String path, String form, int status) throws Exception {
    id.allow(IdentityRule.values());
    String sent =
        (form == null ? "" : form)
            .replace("{credentials}", "client_id=harbour-desk&client_secret=s3cret-of-the-desk");
    HttpResponse<String> response = send(path, sent, FORM);
    assertEquals(status, response.statusCode(), response.body());
    assertTrue(!response.body().contains("<script>"), response.body());
  }

  @Test
  void jsonIsNoForm() throws Exception {
    HttpResponse<String> response = send("/token", "{}", "application/json");
    assertEquals(400, response.statusCode());
    assertTrue(response.body().contains("must be application/x-www-form-urlencoded"));
  }

  private static HttpResponse<String> send(String path, String body, String type) throws Exception {
    return HttpClient.newHttpClient()
        .send(
            HttpRequest.newBuilder(URI.create(TestClient.ISSUER + path))
                .header("content-type", type)
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build(),
            HttpResponse.BodyHandlers.ofString());
  }

  @Test
  void refusalsAreNoCallsOfTheStub() throws Exception {
    String url = "https://berths.example/v1/moorings";
    Stub stub = net.stub("POST " + url).bearer(id.token()).answer(Answers.status(201)).times(1);
    assertEquals(401, client.post(url, Map.of()).statusCode());
    assertEquals(
        201,
        client
            .post(url, Map.of(), "authorization", "Bearer " + id.accessToken("mara"))
            .statusCode());
    stub.calls().assertCount(1);
    assertTrue(net.calls("POST " + url).first().failure().orElse("").contains("no token"));
  }

  @Test
  void testLetsTokensExpire() throws Exception {
    String token = id.accessToken("mara", "berths:read");
    assertEquals(200, bookings(token).statusCode());
    id.expireTokens();
    assertEquals(401, bookings(token).statusCode());
    assertEquals(200, bookings(id.accessToken("mara", "berths:read")).statusCode());
  }

  @Test
  void revokedTokensAreNotActive() throws Exception {
    JsonNode tokens = client.tokens("scope", "openid berths:read");
    String access = tokens.path("access_token").asText();
    String refresh = tokens.path("refresh_token").asText();
    assertEquals("true mara", active(access));
    assertEquals("true ", active(refresh));
    assertEquals("false ", active("unknown"));

    assertEquals(200, service("/revoke", access).statusCode());
    assertEquals("false ", active(access));
    assertEquals(401, bookings(access).statusCode());
    assertEquals("true ", active(refresh));
    assertEquals(200, service("/revoke", refresh).statusCode());
    assertEquals("false ", active(refresh));
    assertEquals(200, service("/revoke", "unknown").statusCode());
  }

  private String active(String token) throws Exception {
    JsonNode found = TestClient.json(service("/introspect", token));
    return found.path("active").asText() + " " + found.path("username").asText();
  }

  private HttpResponse<String> service(String path, String token) throws Exception {
    return client.post(
        path,
        TestClient.changed(
            new HashMap<>(),
            "token",
            token,
            "client_id",
            "harbour-desk",
            "client_secret",
            "s3cret-of-the-desk"));
  }

  @Test
  void userInfoHasTheClaimsOfTheScope() throws Exception {
    JsonNode info =
        TestClient.json(
            client.get(
                "/userinfo",
                Map.of(),
                "authorization",
                "Bearer " + client.tokens().path("access_token").asText()));
    assertEquals("{\"sub\":\"mara\",\"email\":\"mara@marrow-bay.example\"}", info.toString());
  }

  @Test
  void logoutEndsTheSession() throws Exception {
    JsonNode tokens = client.tokens();
    HttpResponse<String> response =
        client.get(
            "/logout",
            Map.of(
                "id_token_hint",
                tokens.path("id_token").asText(),
                "post_logout_redirect_uri",
                "https://desk.example/bye",
                "state",
                "s2"));
    assertEquals(
        "https://desk.example/bye?state=s2", response.headers().firstValue("location").orElse(""));
    assertEquals("false ", active(tokens.path("refresh_token").asText()));
    assertEquals(400, client.get("/logout", Map.of("id_token_hint", "x.y.z")).statusCode());
  }

  @ParameterizedTest
  @CsvSource({"GET,/token,POST", "DELETE,/userinfo,'GET, POST'", "PUT,/jwks,'GET, HEAD'"})
  void otherMethodsAreRefused(String method, String path, String allowed) throws Exception {
    HttpResponse<String> response =
        HttpClient.newHttpClient()
            .send(
                HttpRequest.newBuilder(URI.create(TestClient.ISSUER + path))
                    .method(method, HttpRequest.BodyPublishers.noBody())
                    .build(),
                HttpResponse.BodyHandlers.ofString());
    assertEquals(405, response.statusCode());
    assertEquals(allowed, response.headers().firstValue("allow").orElse(""));
  }

  @Test
  void misuseIsNamed() {
    for (Executable wrong :
        new Executable[] {
          () -> IdentityProvider.open(net, "ftp://id.example"),
          () -> IdentityProvider.open(net, "https://id.example?x=1"),
          () -> IdentityProvider.open(net, "https://id.example:99999"),
          () -> IdentityProvider.open(net, "https://a b"),
          () -> id.signIn("nobody"),
          () -> id.accessToken("nobody"),
          () -> id.user(" "),
          () -> id.codesLast(Duration.ZERO),
          () -> id.client("x").redirectUris("/relative"),
          () -> id.client("x").redirectUris("https://desk.example/#here"),
          () -> id.client("x").publicKeys("no JSON"),
        }) {
      assertTrue(assertThrows(IllegalArgumentException.class, wrong).getMessage().length() > 20);
    }
  }
}
