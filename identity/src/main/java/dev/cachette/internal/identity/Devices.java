// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;
import com.nimbusds.oauth2.sdk.OAuth2Error;
import com.nimbusds.oauth2.sdk.device.DeviceAuthorizationGrantError;
import com.nimbusds.oauth2.sdk.device.DeviceCodeGrant;
import dev.cachette.http.Response;
import dev.cachette.identity.option.IdentityFault;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;

/** Devices without a browser, whose users sign in elsewhere (RFC 8628). */
final class Devices {

  private static final Duration LIFETIME = Duration.ofMinutes(10);
  private static final int INTERVAL_SECONDS = 5;

  /** Letters that make no words, and are not confused (RFC 8628 section 6.1). */
  private static final String LETTERS = "BCDFGHJKLMNPQRSTVWXZ";

  private Devices() {}

  /** Begins with a device. */
  static Response authorize(IdentityCall call) throws OAuthRefusal {
    ClientRecord client = ClientAuthenticator.authenticate(call);
    Grants.requireScopes(client, call.scopes());
    String userCode = userCode();
    Provider provider = call.provider();
    String device =
        provider
            .grants()
            .add(
                new StoredGrants.Device(
                    client.id(), call.scopes(), userCode, call.now().plus(LIFETIME)));
    String page = EndpointPath.DEVICE.url(provider.issuer());
    Map<String, Object> members = new LinkedHashMap<>();
    members.put("device_code", device);
    members.put("user_code", userCode);
    members.put("verification_uri", page);
    members.put("verification_uri_complete", page + "?user_code=" + userCode);
    members.put("expires_in", LIFETIME.toSeconds());
    members.put("interval", INTERVAL_SECONDS);
    return IdentityResponses.json(200, members);
  }

  private static String userCode() {
    StringBuilder code = new StringBuilder();
    for (int at = 0; at < 8; at++) {
      code.append(at == 4 ? "-" : "");
      code.append(LETTERS.charAt(ThreadLocalRandom.current().nextInt(LETTERS.length())));
    }
    return code.toString();
  }

  /** The page on which a user allows a device. */
  static Response page(IdentityCall call) {
    String userCode = call.parameter("user_code").orElse("");
    StoredGrants grants = call.provider().grants();
    Optional<String> user =
        call.parameter(Pages.CHOSEN).flatMap(call.provider().accounts()::named).map(User::name);
    boolean denies = call.parameter("deny").isPresent();
    if (user.isEmpty() && !denies) {
      return Pages.device(call, userCode);
    }
    if (!grants.isWaiting(userCode)) {
      return Pages.message(400, "Unknown code", "No device waits with the code " + userCode + ".");
    }
    grants.decide(userCode, denies ? Optional.empty() : user);
    return Pages.message(
        200, denies ? "Denied" : "Allowed", "You can close this page, and go back to the device.");
  }

  /** Issues tokens to a device, once its user has allowed it. */
  static Response redeem(
      IdentityCall call, ClientRecord client, DeviceCodeGrant wanted, Optional<String> key)
      throws OAuthRefusal {
    String code = wanted.getDeviceCode().getValue();
    StoredGrants grants = call.provider().grants();
    StoredGrants.Device device =
        grants
            .device(code)
            .filter(it -> it.client().equals(client.id()))
            .orElseThrow(() -> new OAuthRefusal(OAuth2Error.INVALID_GRANT, "unknown device code"));
    if (!call.now().isBefore(device.expires())) {
      throw new OAuthRefusal(
          DeviceAuthorizationGrantError.EXPIRED_TOKEN, "the device code has expired");
    }
    Optional<IdentityFault> fault = call.provider().faults().take(PlannedFaults.OF_DEVICES);
    if (fault.isPresent()) {
      throw new OAuthRefusal(new ErrorObject(fault.get().code()), "planned by the test");
    }
    Optional<String> user = decided(call, device);
    grants.endDevice(code);
    if (user.isEmpty()) {
      throw new OAuthRefusal(OAuth2Error.ACCESS_DENIED, "the user has denied it");
    }
    Grant grant =
        Grant.of(client, user, device.scopes(), Grants.audience(call, client), call.now())
            .boundTo(key);
    return new TokenResponse(call, grant).withRefresh();
  }

  /** Without the page of the provider, the next user allows every device at once. */
  private static Optional<String> decided(IdentityCall call, StoredGrants.Device device)
      throws OAuthRefusal {
    Optional<Optional<String>> decision = call.provider().grants().decision(device.userCode());
    if (decision.isPresent()) {
      return decision.get();
    }
    if (call.provider().showsPage()) {
      throw new OAuthRefusal(
          DeviceAuthorizationGrantError.AUTHORIZATION_PENDING, "the user has not decided yet");
    }
    return call.provider().accounts().signingIn(Optional.empty()).map(User::name);
  }
}
