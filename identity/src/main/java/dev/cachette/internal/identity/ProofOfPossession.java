// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.util.Base64URL;
import com.nimbusds.jwt.SignedJWT;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.ParseException;
import com.nimbusds.oauth2.sdk.dpop.JWKThumbprintConfirmation;
import com.nimbusds.oauth2.sdk.dpop.verifiers.AccessTokenValidationException;
import com.nimbusds.oauth2.sdk.dpop.verifiers.DPoPIssuer;
import com.nimbusds.oauth2.sdk.dpop.verifiers.DPoPProtectedResourceRequestVerifier;
import com.nimbusds.oauth2.sdk.dpop.verifiers.DPoPTokenRequestVerifier;
import com.nimbusds.oauth2.sdk.dpop.verifiers.InvalidDPoPProofException;
import com.nimbusds.oauth2.sdk.http.HTTPRequest;
import com.nimbusds.oauth2.sdk.token.DPoPAccessToken;
import com.nimbusds.openid.connect.sdk.Nonce;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.net.URI;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Proofs that a client has a key, to which its tokens are bound (RFC 9449). */
final class ProofOfPossession {

  private static final Set<JWSAlgorithm> ALGORITHMS =
      Set.of(JWSAlgorithm.ES256, JWSAlgorithm.RS256, JWSAlgorithm.PS256);

  private static final long SKEW_SECONDS = 60;

  private static final @Nullable Set<Nonce> ANY_NONCE = null;

  private ProofOfPossession() {}

  /** Returns the thumbprint of the key of a token request; empty if it has no proof. */
  static Optional<String> key(IdentityCall call, ClientRecord client) throws OAuthRefusal {
    if (!call.request().headers().has("dpop")) {
      return Optional.empty();
    }
    try {
      JWKThumbprintConfirmation key =
          new DPoPTokenRequestVerifier(
                  ALGORITHMS, url(call.request()), SKEW_SECONDS, SKEW_SECONDS, null)
              .verify(new DPoPIssuer(client.id()), proof(call.http()), ANY_NONCE, null);
      return Optional.of(key.getValue().toString());
    } catch (InvalidDPoPProofException | ParseException | JOSEException wrong) {
      throw new OAuthRefusal(OAuth2Error.INVALID_DPOP_PROOF, wrong.getMessage());
    }
  }

  private static SignedJWT proof(HTTPRequest http) throws ParseException {
    return http.getPoPWithException();
  }

  private static URI url(Request request) {
    Uri whole = request.uri();
    return Uri.at(whole.scheme(), whole.host(), whole.port(), whole.path()).toJavaUri();
  }

  /** Checks that a request has the key that a grant is bound to. */
  static void requireSame(Grant grant, Optional<String> key, ClientRecord client)
      throws OAuthRefusal {
    // A refresh token of a client with credentials is bound to those (RFC 9449 section 5).
    if (grant.thumbprint().isPresent() && client.isPublic() && !grant.thumbprint().equals(key)) {
      throw new OAuthRefusal(
          OAuth2Error.INVALID_DPOP_PROOF, "it is bound to the key " + grant.thumbprint().get());
    }
  }

  /** Returns why a request has no right to use a token that is bound to a key; empty if it has. */
  static Optional<String> problem(Request request, HTTPRequest http, String token, String key) {
    if (!request.headers().has("dpop")) {
      return Optional.of("it is bound to a key, and the request has no DPoP proof");
    }
    try {
      new DPoPProtectedResourceRequestVerifier(ALGORITHMS, SKEW_SECONDS, SKEW_SECONDS, null)
          .verify(
              request.method(),
              url(request),
              new DPoPIssuer("client"),
              proof(http),
              new DPoPAccessToken(token),
              new JWKThumbprintConfirmation(new Base64URL(key)),
              ANY_NONCE,
              null);
      return Optional.empty();
    } catch (InvalidDPoPProofException
        | AccessTokenValidationException
        | ParseException
        | JOSEException wrong) {
      return Optional.of("its DPoP proof is wrong: " + wrong.getMessage());
    }
  }
}
