// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.cassette.Redaction;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Login flows in cassettes: recorded with one state, nonce and verifier, replayed with others. */
class RecordedLoginTest {

  private static final String GATEWAY = "https://gateway.example";

  @TempDir private Path folder;

  /** The provider that is recorded, and a service that gives out its tokens. */
  private Cachette real;

  private IdentityProvider realId;

  @BeforeEach
  void start() {
    real = Cachette.open(Settings.defaults().withoutInterception());
    realId = IdentityProvider.open(real, TestClient.ISSUER);
    realId.user("mara").claim("groups", List.of("pilots"));
    realId.client("harbour-desk").secret("s3cret-of-the-desk");
  }

  @AfterEach
  void stop() {
    real.close();
  }

  private Settings settings() {
    return Settings.defaults()
        .cassetteFolder(folder)
        .realServiceAt(TestClient.ISSUER, real.baseUrlFor(TestClient.ISSUER))
        .realServiceAt(GATEWAY, real.baseUrlFor(GATEWAY));
  }

  private Cachette recording() {
    Cachette net = Cachette.open(settings());
    net.cassette("login", CassetteSettings.defaults().mode(RecordingMode.REWRITE));
    return net;
  }

  private Cachette replaying() {
    Cachette net = Cachette.open(settings());
    net.cassette("login", CassetteSettings.defaults().mode(RecordingMode.REPLAY));
    return net;
  }

  private String file() throws Exception {
    return Files.readString(folder.resolve("login.har"));
  }

  /** A login with values of its own. */
  private record Login(TestClient client, String state, String nonce) {

    static Login fresh(String state) {
      return new Login(new TestClient(), state, "nonce-" + UUID.randomUUID());
    }

    Map<String, String> authorization(String... changes) {
      Map<String, String> all = client.authorization("state", state, "nonce", nonce);
      return TestClient.changed(all, changes);
    }

    /** Returns the code, if its state comes back. */
    String code(HttpResponse<String> redirect) {
      Map<String, String> sent = TestClient.redirected(redirect);
      assertEquals(state, sent.get("state"), redirect.toString());
      return sent.get("code");
    }

    JsonNode tokens(String code) throws Exception {
      HttpResponse<String> response = client.post("/token", client.redemption(code));
      assertEquals(200, response.statusCode(), response.body());
      return TestClient.json(response);
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"query", "fragment"})
  void replaysWithAnotherStateNonceAndVerifier(String mode) throws Exception {
    Login recorded = Login.fresh("c3RhdGUgb2YgdGhlIGZpcnN0IGxvZ2lu==");
    String code;
    String idToken;
    try (Cachette net = recording()) {
      code =
          recorded.code(
              recorded.client().get("/authorize", recorded.authorization("response_mode", mode)));
      idToken = recorded.tokens(code).path("id_token").asText();
    }
    for (String secret :
        List.of(
            recorded.state(),
            recorded.state().replace("=", "%3D"),
            recorded.nonce(),
            recorded.client().challenge(),
            recorded.client().verifier(),
            code,
            idToken)) {
      assertFalse(file().contains(secret), secret + " in " + file());
    }
    for (String state : List.of("x", "a b&c=d#e?f/\u00e4", UUID.randomUUID().toString())) {
      Login login = Login.fresh(state);
      try (Cachette net = replaying()) {
        HttpResponse<String> redirect =
            login.client().get("/authorize", login.authorization("response_mode", mode));
        assertEquals(TestClient.ISSUER, TestClient.redirected(redirect).get("iss"));
        assertEquals("{{id_token}}", login.tokens(login.code(redirect)).path("id_token").asText());
      }
    }
  }

  @Test
  void replaysPushedRequests() throws Exception {
    for (boolean records : List.of(true, false)) {
      Login login = Login.fresh("state-" + UUID.randomUUID());
      try (Cachette net = records ? recording() : replaying()) {
        HttpResponse<String> pushed =
            login.client().post("/par", login.authorization("client_secret", "s3cret-of-the-desk"));
        Map<String, String> request =
            Map.of(
                "client_id",
                "harbour-desk",
                "request_uri",
                TestClient.json(pushed).path("request_uri").asText());
        login.tokens(login.code(login.client().get("/authorize", request)));
      }
    }
  }

  @Test
  void replaysFormPosts() throws Exception {
    for (boolean records : List.of(true, false)) {
      Login login = Login.fresh("state-" + UUID.randomUUID());
      try (Cachette net = records ? recording() : replaying()) {
        String page =
            login
                .client()
                .get("/authorize", login.authorization("response_mode", "form_post"))
                .body();
        assertTrue(page.contains(login.state()), page);
        assertFalse(page.contains("{{"), page);
      }
    }
  }

  @Test
  void otherParametersStillCount() throws Exception {
    Login recorded = Login.fresh("first");
    try (Cachette net = recording()) {
      recorded.client().get("/authorize", recorded.authorization());
      real.stub("GET https://gateway.example/berths").answer(json("[]"));
      recorded.client().get(GATEWAY + "/berths", Map.of("state", "free"));
    }
    assertTrue(file().contains("state=free"), "not of a login: " + file());
    Login login = Login.fresh("second");
    Cachette net = replaying();
    HttpResponse<String> wrongScope =
        login.client().get("/authorize", login.authorization("scope", "openid"));
    assertEquals(501, wrongScope.statusCode(), wrongScope.body());
    assertTrue(wrongScope.body().contains("query scope"), wrongScope.body());
    HttpResponse<String> wrongState =
        login.client().get(GATEWAY + "/berths", Map.of("state", "taken"));
    assertEquals(501, wrongState.statusCode(), wrongState.body());
    net.calls().last();
    org.junit.jupiter.api.Assertions.assertThrows(AssertionError.class, net::close);
  }

  @Test
  void exceptedNamesAreComparedAndKept() throws Exception {
    try (Cachette net = Cachette.open(settings())) {
      net.cassette(
          "login",
          CassetteSettings.defaults()
              .mode(RecordingMode.REWRITE)
              .redaction(it -> Redaction.byDefault().except("state")));
      Login login = Login.fresh("the-state-of-the-login");
      login.code(login.client().get("/authorize", login.authorization()));
    }
    assertTrue(file().contains("state=the-state-of-the-login"), file());
  }

  @Test
  void tokensAreSignedAgainByTheStandIn() throws Exception {
    real.stub("GET https://gateway.example/session")
        .answer(
            json(
                "{\"access_token\":\""
                    + realId.accessToken("mara", "berths:write")
                    + "\",\"id_token\":\""
                    + realId.idToken("mara", "harbour-desk")
                    + "\"}"));
    TestClient client = new TestClient();
    try (Cachette net = recording()) {
      assertEquals(200, client.get(GATEWAY + "/session", Map.of()).statusCode());
    }
    assertTrue(file().contains("\"_tokens\""), file());
    assertFalse(file().contains("eyJ"), file());

    try (Cachette net = replaying()) {
      IdentityProvider id = IdentityProvider.open(net, TestClient.ISSUER);
      id.user("mara");
      JsonNode session = TestClient.json(client.get(GATEWAY + "/session", Map.of()));
      JWKSet keys = JWKSet.parse(client.get("/jwks", Map.of()).body());
      for (String name : List.of("access_token", "id_token")) {
        SignedJWT token = SignedJWT.parse(session.path(name).asText());
        RSASSAVerifier verifier =
            new RSASSAVerifier(keys.getKeyByKeyId(token.getHeader().getKeyID()).toRSAKey());
        assertTrue(token.verify(verifier), name);
        assertEquals("mara", token.getJWTClaimsSet().getSubject());
        assertEquals(List.of("pilots"), token.getJWTClaimsSet().getClaim("groups"));
        assertEquals(List.of("harbour-desk"), token.getJWTClaimsSet().getAudience());
      }
      net.stub("GET https://berths.example/v1/bookings")
          .bearer(id.token().withScope("berths:write"))
          .answer(json("[]"));
      String bearer = "Bearer " + session.path("access_token").asText();
      HttpResponse<String> bookings =
          client.get("https://berths.example/v1/bookings", Map.of(), "authorization", bearer);
      assertEquals(200, bookings.statusCode(), bookings.body());
    }
    try (Cachette net = replaying()) {
      IdentityProvider.open(net, "https://id.another.example");
      JsonNode session = TestClient.json(client.get(GATEWAY + "/session", Map.of()));
      assertEquals("{{id_token}}", session.path("id_token").asText(), "not its issuer");
    }
  }
}
