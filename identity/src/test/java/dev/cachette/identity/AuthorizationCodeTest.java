// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.crypto.factories.DefaultJWSVerifierFactory;
import com.nimbusds.jose.jwk.AsymmetricJWK;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.Cachette;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.identity.option.SigningAlgorithm;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.security.KeyFactory;
import java.security.Signature;
import java.security.spec.X509EncodedKeySpec;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** The authorization code flow, from the redirect to the tokens. */
class AuthorizationCodeTest {

  private final Cachette net = Cachette.open();
  private final TestClient client = new TestClient();
  private IdentityProvider id;

  @BeforeEach
  void declare() {
    id = IdentityProvider.open(net, TestClient.ISSUER);
    id.user("mara")
        .claim("email", "mara@marrow-bay.example")
        .claim("name", "Mara Quill")
        .claim("groups", List.of("pilots"));
    id.user("olin").claim("email", "olin@marrow-bay.example");
    id.client("harbour-desk").secret("s3cret-of-the-desk").redirectUris(TestClient.REDIRECT);
  }

  @AfterEach
  void nothingWasWrong() {
    net.close();
  }

  @Test
  void codeBecomesTokens() throws Exception {
    HttpResponse<String> signedIn = client.get("/authorize", client.authorization());
    assertEquals(302, signedIn.statusCode());
    Map<String, String> sent = TestClient.redirected(signedIn);
    assertEquals("st-1", sent.get("state"));
    assertEquals(TestClient.ISSUER, sent.get("iss"));

    HttpResponse<String> response = client.post("/token", client.redemption(sent.get("code")));
    JsonNode tokens = TestClient.json(response);
    assertEquals(200, response.statusCode(), response.body());
    assertEquals("no-store", response.headers().firstValue("cache-control").orElse(""));
    assertEquals("Bearer", tokens.path("token_type").asText());
    assertEquals(300, tokens.path("expires_in").asInt());
    assertEquals("openid email", tokens.path("scope").asText());

    JsonNode idToken = TestClient.claims(tokens.path("id_token").asText());
    assertEquals("mara", idToken.path("sub").asText());
    assertEquals("harbour-desk", idToken.path("aud").asText());
    assertEquals("n-1", idToken.path("nonce").asText());
    assertEquals("mara@marrow-bay.example", idToken.path("email").asText());
    assertEquals("[\"pilots\"]", idToken.path("groups").toString());
    assertFalse(idToken.has("name"), "only the scope profile has it");
  }

  @ParameterizedTest
  @EnumSource
  void signaturesVerifyWithThePublishedKeys(SigningAlgorithm algorithm) throws Exception {
    id.signedWith(algorithm);
    JsonNode tokens = client.tokens();
    JWKSet published = JWKSet.parse(client.get("/jwks", Map.of()).body());
    for (String kind : List.of("access_token", "id_token")) {
      SignedJWT token = SignedJWT.parse(tokens.path(kind).asText());
      JWK key = published.getKeyByKeyId(token.getHeader().getKeyID());
      assertTrue(isSigned(token, key), kind);
    }
  }

  private static boolean isSigned(SignedJWT token, JWK key) throws Exception {
    if (!token.getHeader().getAlgorithm().equals(JWSAlgorithm.EdDSA)) {
      return token.verify(
          new DefaultJWSVerifierFactory()
              .createJWSVerifier(token.getHeader(), ((AsymmetricJWK) key).toPublicKey()));
    }
    // The JDK itself, from the published bytes.
    byte[] prefix = HexFormat.of().parseHex("302a300506032b6570032100");
    byte[] x = key.toOctetKeyPair().getDecodedX();
    byte[] encoded = new byte[prefix.length + x.length];
    System.arraycopy(prefix, 0, encoded, 0, prefix.length);
    System.arraycopy(x, 0, encoded, prefix.length, x.length);
    Signature signature = Signature.getInstance("Ed25519");
    signature.initVerify(
        KeyFactory.getInstance("Ed25519").generatePublic(new X509EncodedKeySpec(encoded)));
    signature.update(token.getSigningInput());
    return signature.verify(token.getSignature().decode());
  }

  @Test
  void rotatedKeysAreBothPublished() throws Exception {
    String before = client.tokens().path("id_token").asText();
    id.rotateKeys();
    String after = client.tokens().path("id_token").asText();
    JWKSet published = JWKSet.parse(client.get("/jwks", Map.of()).body());
    String old = SignedJWT.parse(before).getHeader().getKeyID();
    String fresh = SignedJWT.parse(after).getHeader().getKeyID();
    assertFalse(old.equals(fresh));
    assertEquals(List.of(fresh, old), published.getKeys().stream().map(JWK::getKeyID).toList());
  }

  @ParameterizedTest
  @CsvSource({"query,?", "fragment,#", "other,?"})
  void responseModes(String mode, String separator) throws Exception {
    HttpResponse<String> response =
        client.get("/authorize", client.authorization("response_mode", mode));
    String location = response.headers().firstValue("location").orElse("");
    assertTrue(location.startsWith(TestClient.REDIRECT + separator), location);
    assertTrue(TestClient.redirected(response).containsKey("code"), location);
  }

  @Test
  void formPostSendsItself() throws Exception {
    String page =
        client
            .get(
                "/authorize", client.authorization("response_mode", "form_post", "state", "<a\"b>"))
            .body();
    assertTrue(
        page.contains("<form method=\"post\" action=\"" + TestClient.REDIRECT + "\">"), page);
    assertTrue(page.contains("name=\"state\" value=\"&lt;a&quot;b&gt;\""), page);
  }

  @Test
  void testSaysWhoSignsIn() throws Exception {
    assertEquals("mara", subject());
    id.signIn("olin");
    assertEquals("olin", subject());
    assertEquals("mara", subject("login_hint", "mara@marrow-bay.example"));
    try (Cachette.Scope next = net.scope()) {
      assertEquals("mara", subject());
    }
  }

  private String subject(String... changes) throws Exception {
    return TestClient.claims(client.tokens(changes).path("id_token").asText()).path("sub").asText();
  }

  @ParameterizedTest
  @EnumSource(
      value = IdentityFault.class,
      names = {"ACCESS_DENIED", "LOGIN_REQUIRED", "CONSENT_REQUIRED"})
  void plannedErrorsAreRedirected(IdentityFault fault) throws Exception {
    id.next(fault);
    Map<String, String> sent =
        TestClient.redirected(client.get("/authorize", client.authorization()));
    assertEquals(fault.code(), sent.get("error"));
    assertEquals("st-1", sent.get("state"));
    assertTrue(
        TestClient.redirected(client.get("/authorize", client.authorization()))
            .containsKey("code"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "response_type | token | unsupported_response_type",
        "response_type | | invalid_request",
        "scope | openid admin | invalid_scope",
      })
  void wrongRequestsAreRedirectedAsErrors(String name, String value, String error)
      throws Exception {
    id.client("harbour-desk").scopes("openid", "email");
    Map<String, String> sent =
        TestClient.redirected(
            client.get("/authorize", client.authorization(name, value == null ? "" : value)));
    assertEquals(error, sent.get("error"), sent.toString());
    assertEquals("st-1", sent.get("state"));
  }

  @Test
  void pushedRequestsAreUsedOnce() throws Exception {
    Map<String, String> pushed = client.authorization("client_secret", "s3cret-of-the-desk");
    HttpResponse<String> response = client.post("/par", pushed);
    assertEquals(201, response.statusCode(), response.body());
    Map<String, String> reference =
        Map.of(
            "client_id",
            "harbour-desk",
            "request_uri",
            TestClient.json(response).path("request_uri").asText());
    HttpResponse<String> first = client.get("/authorize", reference);
    assertTrue(TestClient.redirected(first).containsKey("code"));
    assertEquals(400, client.get("/authorize", reference).statusCode());
  }

  @Test
  void discoveryNamesWhatAnswers() throws Exception {
    JsonNode metadata = TestClient.json(client.get("/.well-known/openid-configuration", Map.of()));
    assertEquals(TestClient.ISSUER, metadata.path("issuer").asText());
    assertEquals(
        metadata.toString(),
        client.get("/.well-known/oauth-authorization-server", Map.of()).body());
    metadata
        .properties()
        .forEach(
            member -> {
              if (member.getKey().matches(".*_(endpoint|uri)")) {
                assertFalse(isMissing(member.getValue().asText()), member.getKey());
              }
            });
  }

  private boolean isMissing(String url) {
    try {
      return client.get(url, Map.of()).statusCode() == 501;
    } catch (IOException | InterruptedException failed) {
      throw new IllegalStateException(failed);
    }
  }
}
