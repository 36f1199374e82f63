// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.OAuth2Error;
import dev.cachette.http.Response;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Authorization requests that clients push first (RFC 9126). */
final class PushedRequests {

  private static final Duration LIFETIME = Duration.ofSeconds(60);
  private static final int CREATED = 201;
  private static final String BY_REFERENCE = "request_uri";

  private PushedRequests() {}

  /** Keeps the parameters of a client. */
  static Response push(IdentityCall call) throws OAuthRefusal {
    ClientRecord client = ClientAuthenticator.authenticate(call);
    if (call.parameter(BY_REFERENCE).isPresent()) {
      throw new OAuthRefusal(
          OAuth2Error.INVALID_REQUEST, "request_uri must not be pushed (RFC 9126 section 2.1)");
    }
    Map<String, List<String>> parameters = new LinkedHashMap<>(call.parameters());
    List.of("client_secret", "client_assertion", "client_assertion_type")
        .forEach(parameters::remove);
    parameters.put("client_id", List.of(client.id()));
    String name =
        call.provider()
            .grants()
            .add(new StoredGrants.Pushed(client.id(), parameters, call.now().plus(LIFETIME)));
    return IdentityResponses.json(
        CREATED, Map.of(BY_REFERENCE, name, "expires_in", LIFETIME.toSeconds()));
  }

  /** Returns an authorization request with the parameters that were pushed for it, if any. */
  static IdentityCall resolved(IdentityCall call) throws OAuthRefusal {
    Optional<String> reference = call.parameter(BY_REFERENCE);
    if (reference.isEmpty()) {
      return call;
    }
    StoredGrants.Pushed pushed =
        call.provider()
            .grants()
            .takePushed(reference.get())
            .filter(it -> call.now().isBefore(it.expires()))
            .filter(it -> call.parameter("client_id").filter(it.client()::equals).isPresent())
            .orElseThrow(
                () ->
                    new OAuthRefusal(
                        OAuth2Error.INVALID_REQUEST_URI,
                        "unknown, used or expired request_uri, or of another client"));
    Map<String, List<String>> parameters = new LinkedHashMap<>(pushed.parameters());
    call.parameter(Pages.CHOSEN).ifPresent(it -> parameters.put(Pages.CHOSEN, List.of(it)));
    return call.with(parameters);
  }
}
