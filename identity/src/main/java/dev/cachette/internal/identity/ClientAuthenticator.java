// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.jwk.AsymmetricJWK;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.ParseException;
import com.nimbusds.oauth2.sdk.auth.ClientAuthentication;
import com.nimbusds.oauth2.sdk.auth.ClientAuthenticationMethod;
import com.nimbusds.oauth2.sdk.auth.PlainClientSecret;
import com.nimbusds.oauth2.sdk.auth.PrivateKeyJWT;
import com.nimbusds.oauth2.sdk.auth.Secret;
import com.nimbusds.oauth2.sdk.auth.verifier.ClientAuthenticationVerifier;
import com.nimbusds.oauth2.sdk.auth.verifier.ClientCredentialsSelector;
import com.nimbusds.oauth2.sdk.auth.verifier.Context;
import com.nimbusds.oauth2.sdk.auth.verifier.InvalidClientException;
import com.nimbusds.oauth2.sdk.auth.verifier.JWTAudienceCheck;
import com.nimbusds.oauth2.sdk.id.Audience;
import com.nimbusds.oauth2.sdk.id.ClientID;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.identity.option.IdentityRule;
import java.security.PublicKey;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Authenticates clients (RFC 6749 section 2.3, RFC 7523 section 2.2, RFC 8705 section 2.2). */
final class ClientAuthenticator {

  private static final String WHY =
      "A provider refuses a client that does not authenticate as it is registered (RFC 6749"
          + " section 5.2).";

  private ClientAuthenticator() {}

  /**
   * Returns the client of a request.
   *
   * @throws OAuthRefusal if it does not authenticate as it is declared
   */
  static ClientRecord authenticate(IdentityCall call) throws OAuthRefusal {
    if (call.provider().faults().take(IdentityFault.INVALID_CLIENT)) {
      throw new OAuthRefusal(OAuth2Error.INVALID_CLIENT, "the client is refused");
    }
    requireNothingInUrl(call);
    ClientAuthentication sent = sent(call);
    String id =
        Optional.ofNullable(sent)
            .map(it -> it.getClientID().getValue())
            .or(() -> call.parameter("client_id"))
            .or(() -> Assertions.issuer(call))
            .orElseThrow(() -> refused(call, "credentials of a client", "none", "send them."));
    ClientRecord client =
        call.provider()
            .clients()
            .known(id)
            .orElseThrow(
                () ->
                    refused(
                        call,
                        "one of " + call.provider().clients().names(),
                        id,
                        "declare it with client(\"" + id + "\")."));
    if (call.provider().clients().isStrict()) {
      verify(call, client, sent);
    }
    return client;
  }

  private static void requireNothingInUrl(IdentityCall call) throws OAuthRefusal {
    for (String secret : List.of("client_secret", "client_assertion", "refresh_token", "code")) {
      if (call.hasInUrl(secret)) {
        call.broken(
            IdentityRule.NOTHING_SECRET_IN_URLS,
            secret,
            "in the body",
            "in the URL",
            "URLs are in the logs of servers and proxies (RFC 6749 section 2.3.1).",
            "send it as a form.");
        throw new OAuthRefusal(OAuth2Error.INVALID_REQUEST, secret + " must not be in the URL");
      }
    }
  }

  private static @Nullable ClientAuthentication sent(IdentityCall call) throws OAuthRefusal {
    try {
      return ClientAuthentication.parse(call.http());
    } catch (ParseException malformed) {
      throw refused(call, "credentials that can be read", malformed.getMessage(), "correct them.");
    }
  }

  private static void verify(
      IdentityCall call, ClientRecord client, @Nullable ClientAuthentication sent)
      throws OAuthRefusal {
    if (sent == null && Assertions.issuer(call).isPresent()) {
      // The assertion is checked as the grant that it is.
      return;
    }
    boolean isCertified =
        client.certificate().isPresent() && client.certificate().equals(call.call().certificate());
    if (isCertified || client.isPublic() && sent == null) {
      return;
    }
    if (sent instanceof PlainClientSecret plain && client.secret().isPresent()) {
      if (!client.secret().get().equals(plain.getClientSecret().getValue())) {
        throw refused(
            call, "the secret of " + client.id(), "another one", "send the declared secret.");
      }
    } else if (sent instanceof PrivateKeyJWT assertion && client.keys().isPresent()) {
      verify(call, client, assertion);
    } else {
      throw refused(
          call,
          client.authentication(),
          sent == null ? "no credentials" : sent.getMethod().getValue(),
          "configure the client as it is declared.");
    }
  }

  private static void verify(IdentityCall call, ClientRecord client, PrivateKeyJWT assertion)
      throws OAuthRefusal {
    Set<Audience> audience =
        Stream.of(
                call.provider().issuer(),
                EndpointPath.TOKEN.url(call.provider().issuer()),
                call.request().uri().origin() + call.request().uri().path())
            .map(Audience::new)
            .collect(Collectors.toSet());
    try {
      new ClientAuthenticationVerifier<ClientRecord>(
              new DeclaredKeys(client), audience, JWTAudienceCheck.LEGACY)
          .verify(assertion, Set.of(), new Context<>());
    } catch (InvalidClientException | JOSEException wrong) {
      throw refused(
          call,
          "an assertion that a declared key has signed, for " + call.provider().issuer(),
          wrong.getMessage(),
          "sign it with the key of the client.");
    }
  }

  private static OAuthRefusal refused(
      IdentityCall call, String expected, String actual, String fix) {
    call.broken(IdentityRule.CLIENT_AUTHENTICATION, "client", expected, actual, WHY, fix);
    return new OAuthRefusal(
        OAuth2Error.INVALID_CLIENT, "client authentication failed: expected " + expected);
  }

  private record DeclaredKeys(ClientRecord client)
      implements ClientCredentialsSelector<ClientRecord> {

    @Override
    public List<Secret> selectClientSecrets(
        ClientID id, ClientAuthenticationMethod method, Context<ClientRecord> context) {
      return List.of();
    }

    @Override
    public List<? extends PublicKey> selectPublicKeys(
        ClientID id,
        ClientAuthenticationMethod method,
        JWSHeader header,
        boolean refresh,
        Context<ClientRecord> context)
        throws InvalidClientException {
      List<PublicKey> keys = new ArrayList<>();
      for (JWK key : client.keys().orElseThrow().getKeys()) {
        try {
          if (key instanceof AsymmetricJWK pair) {
            keys.add(pair.toPublicKey());
          }
        } catch (JOSEException unusable) {
          throw InvalidClientException.NO_MATCHING_JWK;
        }
      }
      return keys;
    }
  }
}
