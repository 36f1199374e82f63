// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import com.nimbusds.oauth2.sdk.AuthorizationCode;
import com.nimbusds.oauth2.sdk.AuthorizationCodeGrant;
import com.nimbusds.oauth2.sdk.ResponseType;
import com.nimbusds.oauth2.sdk.Scope;
import com.nimbusds.oauth2.sdk.TokenRequest;
import com.nimbusds.oauth2.sdk.auth.ClientSecretBasic;
import com.nimbusds.oauth2.sdk.auth.Secret;
import com.nimbusds.oauth2.sdk.id.ClientID;
import com.nimbusds.oauth2.sdk.id.Issuer;
import com.nimbusds.oauth2.sdk.id.State;
import com.nimbusds.oauth2.sdk.pkce.CodeChallengeMethod;
import com.nimbusds.oauth2.sdk.pkce.CodeVerifier;
import com.nimbusds.openid.connect.sdk.AuthenticationRequest;
import com.nimbusds.openid.connect.sdk.Nonce;
import com.nimbusds.openid.connect.sdk.OIDCTokenResponse;
import com.nimbusds.openid.connect.sdk.OIDCTokenResponseParser;
import com.nimbusds.openid.connect.sdk.op.OIDCProviderMetadata;
import com.nimbusds.openid.connect.sdk.validators.IDTokenValidator;
import dev.cachette.Cachette;
import java.net.URI;
import java.net.http.HttpResponse;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The SDK of Nimbus signs in, with its own checks. */
class NimbusLoginTest {

  private static final URI REDIRECT = URI.create(TestClient.REDIRECT);
  private static final ClientID CLIENT = new ClientID("harbour-desk");
  private static final String SECRET = "s3cret-of-the-desk";

  private final Cachette net = Cachette.open();
  private final TestClient browser = new TestClient();
  private IdentityProvider id;

  @BeforeEach
  void declare() {
    id = IdentityProvider.open(net, TestClient.ISSUER);
    id.user("mara").claim("email", "mara@marrow-bay.example");
    id.client(CLIENT.getValue()).secret(SECRET);
  }

  @AfterEach
  void nothingWasWrong() {
    net.close();
  }

  /** Follows a redirect to the provider; returns what comes back. */
  private Map<String, String> visit(URI authorization) throws Exception {
    HttpResponse<String> back = browser.get(authorization.toString(), Map.of());
    return TestClient.redirected(back);
  }

  @Test
  void nimbus() throws Exception {
    OIDCProviderMetadata metadata = OIDCProviderMetadata.resolve(new Issuer(TestClient.ISSUER));
    LoginTable.assertRow("Nimbus OAuth 2.0 SDK 11.37", id, () -> nimbus(metadata));
  }

  private boolean nimbus(OIDCProviderMetadata metadata) throws Exception {
    CodeVerifier verifier = new CodeVerifier();
    Nonce nonce = new Nonce();
    Map<String, String> back =
        visit(
            new AuthenticationRequest.Builder(
                    ResponseType.CODE, new Scope("openid", "email"), CLIENT, REDIRECT)
                .endpointURI(metadata.getAuthorizationEndpointURI())
                .state(new State())
                .nonce(nonce)
                .codeChallenge(verifier, CodeChallengeMethod.S256)
                .build()
                .toURI());
    TokenRequest request =
        new TokenRequest.Builder(
                metadata.getTokenEndpointURI(),
                new ClientSecretBasic(CLIENT, new Secret(SECRET)),
                new AuthorizationCodeGrant(
                    new AuthorizationCode(back.get("code")), REDIRECT, verifier))
            .build();
    OIDCTokenResponse tokens =
        (OIDCTokenResponse)
            OIDCTokenResponseParser.parse(request.toHTTPRequest().send()).toSuccessResponse();
    IDTokenValidator validator =
        new IDTokenValidator(
            metadata.getIssuer(),
            CLIENT,
            com.nimbusds.jose.JWSAlgorithm.RS256,
            metadata.getJWKSetURI().toURL());
    try {
      validator.validate(tokens.getOIDCTokens().getIDToken(), nonce);
      return true;
    } catch (com.nimbusds.jose.proc.BadJOSEException refused) {
      return false;
    }
  }
}
