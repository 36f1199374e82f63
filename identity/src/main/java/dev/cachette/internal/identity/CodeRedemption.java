// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.AuthorizationCodeGrant;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.pkce.CodeChallenge;
import com.nimbusds.oauth2.sdk.pkce.CodeChallengeMethod;
import dev.cachette.http.Response;
import dev.cachette.identity.option.IdentityRule;
import java.util.Optional;

/** Exchanges a code for tokens (RFC 6749 section 4.1.3, RFC 7636 section 4.6). */
final class CodeRedemption {

  private CodeRedemption() {}

  static Response redeem(
      IdentityCall call, ClientRecord client, AuthorizationCodeGrant wanted, Optional<String> key)
      throws OAuthRefusal {
    String name = wanted.getAuthorizationCode().getValue();
    StoredGrants grants = call.provider().grants();
    Optional<StoredGrants.Code> before = grants.redeemed(name);
    if (before.isPresent()) {
      call.provider().issued().revoke(before.get().grant().session());
      grants.endSession(before.get().grant().session());
      throw once(call, "a code that is redeemed once", "one that was redeemed before");
    }
    StoredGrants.Code code =
        grants
            .redeem(name)
            .orElseThrow(() -> new OAuthRefusal(OAuth2Error.INVALID_GRANT, "unknown code"));
    if (!code.grant().client().equals(client.id())) {
      throw once(call, "a code of " + client.id(), "one of " + code.grant().client());
    }
    if (!call.now().isBefore(code.expires())) {
      throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "the code has expired");
    }
    requireSameRedirect(call, code);
    requireVerifier(call, code, wanted);
    ProofOfPossession.requireSame(code.grant(), key, client);
    return new TokenResponse(call, code.grant().boundTo(key)).withRefresh();
  }

  private static OAuthRefusal once(IdentityCall call, String expected, String actual) {
    call.broken(
        IdentityRule.CODE_ONCE,
        "code",
        expected,
        actual,
        "A provider takes this for theft, and ends all tokens of the code"
            + " (RFC 6749 section 4.1.2).",
        "redeem each code once, by the client that has asked for it.");
    return new OAuthRefusal(OAuth2Error.INVALID_GRANT, "expected " + expected + ", got " + actual);
  }

  private static void requireSameRedirect(IdentityCall call, StoredGrants.Code code)
      throws OAuthRefusal {
    Optional<String> before = code.redirectUri().map(Object::toString);
    Optional<String> sent = call.parameter("redirect_uri");
    if (before.isPresent() && !before.equals(sent)) {
      call.broken(
          IdentityRule.REDIRECT_URI,
          "redirect_uri",
          before.get(),
          sent.orElse("missing"),
          "It must be the one of the authorization request (RFC 6749 section 4.1.3).",
          "send the same redirect URI with the code.");
      throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "another redirect_uri than before");
    }
  }

  private static void requireVerifier(
      IdentityCall call, StoredGrants.Code code, AuthorizationCodeGrant wanted)
      throws OAuthRefusal {
    Optional<String> verifier = call.parameter("code_verifier");
    Optional<String> actual =
        Optional.ofNullable(wanted.getCodeVerifier())
            .map(it -> CodeChallenge.compute(CodeChallengeMethod.S256, it).getValue());
    if (actual.equals(code.challenge())) {
      return;
    }
    boolean isPlain = verifier.isPresent() && verifier.equals(code.challenge());
    if (isPlain && call.provider().allows(IdentityRule.PKCE)) {
      return;
    }
    call.broken(
        IdentityRule.PKCE,
        "code_verifier",
        code.challenge()
            .map(it -> "the verifier of the challenge " + it)
            .orElse("missing, as the authorization request had no challenge"),
        actual.map(it -> "that of " + it).orElse("missing"),
        "It proves that the client has made the authorization request (RFC 7636 section 4.6).",
        "keep the verifier until the code comes, and send it with the code.");
    throw new OAuthRefusal(OAuth2Error.INVALID_GRANT, "wrong code_verifier");
  }
}
