// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.crypto.ECDSASigner;
import com.nimbusds.jose.jwk.Curve;
import com.nimbusds.jose.jwk.ECKey;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.gen.ECKeyGenerator;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import com.nimbusds.oauth2.sdk.dpop.DPoPProofFactory;
import com.nimbusds.oauth2.sdk.dpop.DefaultDPoPProofFactory;
import com.nimbusds.oauth2.sdk.token.DPoPAccessToken;
import dev.cachette.Cachette;
import dev.cachette.answer.Answers;
import dev.cachette.identity.option.IdentityFault;
import java.net.URI;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Date;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The grants besides the code: refresh, clients for themselves, devices, assertions. */
class GrantsTest {

  private static final String GRANTS = "urn:ietf:params:oauth:grant-type:";

  private final Cachette net = Cachette.open();
  private final TestClient client = new TestClient();
  private IdentityProvider id;

  @BeforeEach
  void declare() {
    id = IdentityProvider.open(net, TestClient.ISSUER);
    id.user("mara").claim("groups", List.of("pilots"));
    id.client("harbour-desk").secret("s3cret-of-the-desk");
  }

  @AfterEach
  void nothingWasWrong() {
    net.close();
  }

  private HttpResponse<String> token(String... parameters) throws Exception {
    return client.post("/token", TestClient.changed(new HashMap<>(), parameters), basic());
  }

  private static String[] basic() {
    String credentials = "harbour-desk:s3cret-of-the-desk";
    return new String[] {
      "authorization", "Basic " + Base64.getEncoder().encodeToString(credentials.getBytes())
    };
  }

  private HttpResponse<String> refresh(String token, String... more) throws Exception {
    Map<String, String> all =
        TestClient.changed(new HashMap<>(), "grant_type", "refresh_token", "refresh_token", token);
    return client.post("/token", TestClient.changed(all, more), basic());
  }

  private static String error(HttpResponse<String> response) throws Exception {
    return response.statusCode() + " " + TestClient.json(response).path("error").asText();
  }

  @Test
  void refreshTokensAreRotated() throws Exception {
    JsonNode first = client.tokens();
    JsonNode second = TestClient.json(refresh(first.path("refresh_token").asText()));
    JsonNode third = TestClient.json(refresh(second.path("refresh_token").asText()));
    assertFalse(first.path("refresh_token").equals(second.path("refresh_token")));
    assertFalse(first.path("access_token").equals(second.path("access_token")));
    assertEquals("mara", TestClient.claims(third.path("id_token").asText()).path("sub").asText());
    assertEquals("openid email", third.path("scope").asText());
  }

  @Test
  void refreshMayNarrowTheScope() throws Exception {
    String token = client.tokens().path("refresh_token").asText();
    assertEquals("400 invalid_scope", error(refresh(token, "scope", "openid admin")));
    JsonNode narrowed = TestClient.json(refresh(token, "scope", "openid"));
    assertEquals("openid", narrowed.path("scope").asText());
  }

  @Test
  void everythingExpiresByTheClockOfTheSession() throws Exception {
    id.refreshTokensLast(Duration.ofHours(2)).codesLast(Duration.ofSeconds(30));
    String code = client.code();
    String token = client.tokens().path("refresh_token").asText();
    String access = id.accessToken("mara", "openid");
    net.clock().advance(Duration.ofMinutes(1));
    assertEquals("400 invalid_grant", error(client.post("/token", client.redemption(code))));
    assertEquals(200, userInfo(access).statusCode());
    net.clock().advance(Duration.ofMinutes(5));
    assertEquals(401, userInfo(access).statusCode());
    net.clock().advance(Duration.ofHours(2));
    assertEquals("400 invalid_grant", error(refresh(token)));
  }

  private HttpResponse<String> userInfo(String token) throws Exception {
    return client.get("/userinfo", Map.of(), "authorization", "Bearer " + token);
  }

  @Test
  void plannedRefusalOfARefreshIsOneOnly() throws Exception {
    String token = client.tokens().path("refresh_token").asText();
    id.next(IdentityFault.INVALID_GRANT);
    assertEquals("400 invalid_grant", error(refresh(token)));
    assertEquals(200, refresh(token).statusCode());
  }

  @Test
  void clientsActForThemselves() throws Exception {
    id.client("harbour-desk").audience("https://berths.example").scopes("berths:write");
    HttpResponse<String> response =
        token("grant_type", "client_credentials", "scope", "berths:write");
    JsonNode claims = TestClient.claims(TestClient.json(response).path("access_token").asText());
    assertEquals("harbour-desk", claims.path("sub").asText());
    assertEquals("https://berths.example", claims.path("aud").asText());
    assertFalse(TestClient.json(response).has("refresh_token"));
    assertEquals(
        "400 invalid_scope", error(token("grant_type", "client_credentials", "scope", "admin")));
    assertEquals("400 unsupported_grant_type", error(token("grant_type", "telepathy")));
  }

  @Test
  void clientsAuthenticateByTheirKeys() throws Exception {
    ECKey key = new ECKeyGenerator(Curve.P_256).keyID("k1").generate();
    id.client("robot").publicKeys(new JWKSet(key).toString());
    HttpResponse<String> response =
        client.post(
            "/token",
            Map.of(
                "grant_type",
                "client_credentials",
                "client_assertion_type",
                "urn:ietf:params:oauth:client-assertion-type:jwt-bearer",
                "client_assertion",
                assertion(key, "robot", "robot")));
    assertEquals(200, response.statusCode(), response.body());
  }

  private static String assertion(ECKey key, String issuer, String subject) throws Exception {
    SignedJWT assertion =
        new SignedJWT(
            new JWSHeader.Builder(JWSAlgorithm.ES256).keyID(key.getKeyID()).build(),
            new JWTClaimsSet.Builder()
                .issuer(issuer)
                .subject(subject)
                .audience(TestClient.ISSUER + "/token")
                .expirationTime(Date.from(Instant.now().plusSeconds(60)))
                .jwtID(UUID.randomUUID().toString())
                .build());
    assertion.sign(new ECDSASigner(key));
    return assertion.serialize();
  }

  @Test
  void assertionsAreGrants() throws Exception {
    ECKey key = new ECKeyGenerator(Curve.P_256).keyID("k1").generate();
    ECKey stranger = new ECKeyGenerator(Curve.P_256).keyID("k1").generate();
    id.client("robot").publicKeys(new JWKSet(key).toString());
    Map<String, String> grant =
        Map.of("grant_type", GRANTS + "jwt-bearer", "assertion", assertion(key, "robot", "mara"));
    JsonNode tokens = TestClient.json(client.post("/token", grant));
    assertEquals(
        "mara", TestClient.claims(tokens.path("access_token").asText()).path("sub").asText());

    for (String wrong :
        new String[] {assertion(stranger, "robot", "mara"), assertion(key, "robot", "nobody")}) {
      Map<String, String> refused = Map.of("grant_type", GRANTS + "jwt-bearer", "assertion", wrong);
      assertEquals("400 invalid_grant", error(client.post("/token", refused)));
    }
  }

  @Test
  void tokensAreExchanged() throws Exception {
    HttpResponse<String> response =
        token(
            "grant_type",
            GRANTS + "token-exchange",
            "subject_token",
            id.accessToken("mara", "openid"),
            "subject_token_type",
            "urn:ietf:params:oauth:token-type:access_token",
            "audience",
            "https://tides.example",
            "scope",
            "tides:read");
    JsonNode claims = TestClient.claims(TestClient.json(response).path("access_token").asText());
    assertEquals("mara", claims.path("sub").asText());
    assertEquals("https://tides.example", claims.path("aud").asText());
    assertEquals("harbour-desk", claims.at("/act/sub").asText());
    assertEquals("tides:read", claims.path("scope").asText());
  }

  @Test
  void devicesWaitForTheirUsers() throws Exception {
    JsonNode device =
        TestClient.json(client.post("/device_authorization", Map.of("scope", "openid"), basic()));
    assertTrue(device.path("user_code").asText().matches("[B-Z]{4}-[B-Z]{4}"));
    id.next(IdentityFault.AUTHORIZATION_PENDING, IdentityFault.SLOW_DOWN);
    String code = device.path("device_code").asText();
    assertEquals("400 authorization_pending", error(poll(code)));
    assertEquals("400 slow_down", error(poll(code)));
    assertEquals(200, poll(code).statusCode());
    assertEquals("400 invalid_grant", error(poll(code)));
  }

  @Test
  void usersAllowDevicesOnThePage() throws Exception {
    id.withLoginPage();
    for (String decision : new String[] {"signed_in_as", "deny"}) {
      JsonNode device =
          TestClient.json(client.post("/device_authorization", Map.of("scope", "openid"), basic()));
      String code = device.path("device_code").asText();
      assertEquals("400 authorization_pending", error(poll(code)));
      client.post(
          "/device", Map.of("user_code", device.path("user_code").asText(), decision, "mara"));
      HttpResponse<String> polled = poll(code);
      assertEquals(
          decision.equals("deny") ? "400 access_denied" : "200 ", error(polled), polled.body());
    }
  }

  private HttpResponse<String> poll(String code) throws Exception {
    return token("grant_type", GRANTS + "device_code", "device_code", code);
  }

  @Test
  void boundTokensNeedAProof() throws Exception {
    net.stub("GET https://tides.example/v1/tides")
        .bearer(id.token())
        .answer(Answers.json("{\"high\": []}"));
    ECKey key = new ECKeyGenerator(Curve.P_256).generate();
    DPoPProofFactory proofs = new DefaultDPoPProofFactory(key, JWSAlgorithm.ES256);
    String proof =
        proofs.createDPoPJWT("POST", URI.create(TestClient.ISSUER + "/token")).serialize();
    JsonNode tokens =
        TestClient.json(
            client.post(
                "/token",
                Map.of("grant_type", "client_credentials"),
                "dpop",
                proof,
                basic()[0],
                basic()[1]));
    assertEquals("DPoP", tokens.path("token_type").asText(), tokens.toString());
    String token = tokens.path("access_token").asText();

    URI tides = URI.create("https://tides.example/v1/tides");
    String right = proofs.createDPoPJWT("GET", tides, new DPoPAccessToken(token)).serialize();
    String ofAnother =
        new DefaultDPoPProofFactory(new ECKeyGenerator(Curve.P_256).generate(), JWSAlgorithm.ES256)
            .createDPoPJWT("GET", tides, new DPoPAccessToken(token))
            .serialize();
    assertEquals(200, with("DPoP " + token, right));
    assertEquals(401, with("DPoP " + token, ofAnother));
    assertEquals(401, with("DPoP " + token, proof));
    assertEquals(401, with("Bearer " + token, ""));
  }

  private int with(String authorization, String proof) throws Exception {
    String url = "https://tides.example/v1/tides";
    return (proof.isEmpty()
            ? client.get(url, Map.of(), "authorization", authorization)
            : client.get(url, Map.of(), "authorization", authorization, "dpop", proof))
        .statusCode();
  }
}
