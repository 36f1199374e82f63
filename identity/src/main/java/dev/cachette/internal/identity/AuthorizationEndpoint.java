// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.AuthorizationRequest;
import com.nimbusds.oauth2.sdk.ErrorObject;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.ParseException;
import com.nimbusds.oauth2.sdk.ResponseType;
import com.nimbusds.oauth2.sdk.pkce.CodeChallengeMethod;
import com.nimbusds.openid.connect.sdk.OIDCError;
import dev.cachette.http.Response;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.identity.option.IdentityRule;
import dev.cachette.internal.text.Failed;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Signs users in, and sends codes to their clients (RFC 6749 section 4.1.1). */
final class AuthorizationEndpoint {

  private AuthorizationEndpoint() {}

  static Response respond(IdentityCall received) {
    IdentityCall call;
    ClientRecord client;
    URI redirectUri;
    try {
      call = PushedRequests.resolved(received);
      client = client(call);
      redirectUri = redirectUri(call, client);
    } catch (OAuthRefusal refusal) {
      // An error must not be sent to a URI that may be wrong (RFC 6749 section 4.1.2.1).
      return Pages.error(refusal.error());
    }
    RedirectResponse response = RedirectResponse.of(call, redirectUri);
    try {
      AuthorizationRequest request = AuthorizationRequest.parse(call.parameters());
      requireAllowed(call, client, request);
      return signedIn(call, client, redirectUri, response);
    } catch (ParseException malformed) {
      return response.error(IdentityCall.malformed(malformed).error());
    } catch (OAuthRefusal refusal) {
      return response.error(refusal.error());
    }
  }

  private static ClientRecord client(IdentityCall call) throws OAuthRefusal {
    String id =
        call.parameter("client_id")
            .orElseThrow(
                () -> new OAuthRefusal(OAuth2Error.INVALID_REQUEST, "client_id is missing"));
    Optional<ClientRecord> client = call.provider().clients().known(id);
    if (client.isEmpty()) {
      call.broken(
          IdentityRule.CLIENT_AUTHENTICATION,
          "client_id",
          "one of " + call.provider().clients().names(),
          id,
          "A provider shows an error page to the user, and redirects nobody.",
          "declare it with client(\"" + id + "\").");
    }
    return client.orElseThrow(
        () -> new OAuthRefusal(OAuth2Error.UNAUTHORIZED_CLIENT, "unknown client " + id));
  }

  /** Redirect URIs are compared exactly (RFC 9700 section 2.1). */
  private static URI redirectUri(IdentityCall call, ClientRecord client) throws OAuthRefusal {
    Optional<String> sent = call.parameter("redirect_uri");
    List<URI> declared = client.redirectUris();
    if (sent.isEmpty() && declared.size() == 1 && !call.scopes().contains("openid")) {
      return declared.get(0);
    }
    String text =
        sent.orElseThrow(
            () -> new OAuthRefusal(OAuth2Error.INVALID_REQUEST, "redirect_uri is missing"));
    boolean isRight =
        declared.isEmpty()
            ? isAbsolute(text)
            : declared.stream().anyMatch(it -> it.toString().equals(text));
    if (isRight) {
      return URI.create(text);
    }
    call.broken(
        IdentityRule.REDIRECT_URI,
        "redirect_uri",
        declared.isEmpty() ? "an absolute URI without a fragment" : "one of " + declared,
        text,
        "A provider shows an error page to the user, and redirects nobody.",
        "register it with redirectUris(...), or correct it in the client.");
    throw new OAuthRefusal(OAuth2Error.INVALID_REQUEST, "wrong redirect_uri " + text);
  }

  private static boolean isAbsolute(String text) {
    try {
      URI uri = new URI(text);
      return uri.isAbsolute() && uri.getRawFragment() == null;
    } catch (URISyntaxException malformed) {
      return false;
    }
  }

  private static void requireAllowed(
      IdentityCall call, ClientRecord client, AuthorizationRequest request) throws OAuthRefusal {
    Optional<IdentityFault> fault = call.provider().faults().take(PlannedFaults.OF_AUTHORIZATION);
    if (fault.isPresent()) {
      throw new OAuthRefusal(new ErrorObject(fault.get().code()), "planned by the test");
    }
    if (!request.getResponseType().equals(ResponseType.CODE)) {
      throw new OAuthRefusal(
          OAuth2Error.UNSUPPORTED_RESPONSE_TYPE,
          "only response_type=code, not " + request.getResponseType());
    }
    if (call.parameter("state").isEmpty()) {
      call.broken(
          IdentityRule.STATE,
          "state",
          "a text that the client compares with the response",
          "missing",
          "Without it, another page can sign the user in to someone else's account.",
          "send a random state, and compare it.");
    }
    requireChallenge(call, client, request);
    Grants.requireScopes(client, call.scopes());
  }

  private static void requireChallenge(
      IdentityCall call, ClientRecord client, AuthorizationRequest request) throws OAuthRefusal {
    boolean isMissing = request.getCodeChallenge() == null;
    boolean isS256 = CodeChallengeMethod.S256.equals(request.getCodeChallengeMethod());
    boolean isNeeded = call.provider().clients().isStrict() && client.isPublic();
    if (isMissing ? isNeeded : !isS256) {
      call.broken(
          IdentityRule.PKCE,
          isMissing ? "code_challenge" : "code_challenge_method",
          isMissing ? "the S256 challenge of a verifier" : "S256",
          isMissing
              ? "missing"
              : call.parameter("code_challenge_method").orElse("missing, which means plain"),
          "A client without credentials must prove that the code was sent to it"
              + " (RFC 7636, RFC 9700 section 2.1.1).",
          "use PKCE with S256.");
      if (!call.provider().allows(IdentityRule.PKCE)) {
        throw new OAuthRefusal(OAuth2Error.INVALID_REQUEST, "PKCE with S256 is required");
      }
    }
  }

  private static Response signedIn(
      IdentityCall call, ClientRecord client, URI redirectUri, RedirectResponse response)
      throws OAuthRefusal {
    Optional<SignIns.SignIn> user = SignIns.of(call);
    if (user.isEmpty() && call.provider().showsPage()) {
      if (call.parameter("prompt").filter("none"::equals).isPresent()) {
        throw new OAuthRefusal(OIDCError.LOGIN_REQUIRED, "nobody is signed in");
      }
      return Pages.login(call);
    }
    SignIns.SignIn signIn = user.orElseThrow(() -> noUser(call));
    Grant grant = grant(call, client, signIn.user(), signIn.at());
    String code =
        call.provider()
            .grants()
            .add(
                new StoredGrants.Code(
                    grant,
                    call.parameter("redirect_uri").map(it -> redirectUri),
                    call.parameter("code_challenge"),
                    call.now().plus(call.provider().lifetimes().code())));
    Response redirected = response.success(Map.of("code", code));
    return call.provider().showsPage()
        ? IdentityResponses.with(redirected, "set-cookie", signIn.cookie())
        : redirected;
  }

  private static Grant grant(IdentityCall call, ClientRecord client, User user, Instant signedIn) {
    return Grant.of(
            client,
            Optional.of(user.name()),
            call.scopes(),
            Grants.audience(call, client),
            call.now())
        .afterSignIn(call.parameter("nonce"), signedIn)
        .boundTo(call.parameter("dpop_jkt"));
  }

  private static OAuthRefusal noUser(IdentityCall call) {
    call.call()
        .failing()
        .accept(
            Failed.of(
                "Nobody can sign in at "
                    + call.provider().issuer()
                    + ": no user is declared. Fix: call user(\"...\")."));
    return new OAuthRefusal(OAuth2Error.ACCESS_DENIED, "no user is declared");
  }
}
