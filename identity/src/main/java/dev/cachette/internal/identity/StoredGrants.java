// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.net.URI;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;

/** Codes, refresh tokens and others that were issued, until they are redeemed. Thread-safe. */
final class StoredGrants {

  private static final int MOST = 10_000;

  /**
   * A code that was issued.
   *
   * @param redirectUri the redirect URI of the authorization request, if it had one
   * @param challenge the challenge of PKCE
   * @param expires when it expires
   */
  record Code(
      Grant grant, Optional<URI> redirectUri, Optional<String> challenge, Instant expires) {}

  /**
   * A refresh token.
   *
   * @param family what the first one of its family, and all that replace it, have in common
   */
  record Refresh(Grant grant, String family, Instant expires) {}

  /** A device that waits for its user (RFC 8628). */
  record Device(String client, Set<String> scopes, String userCode, Instant expires) {}

  /** Parameters that were pushed (RFC 9126). */
  record Pushed(String client, Map<String, List<String>> parameters, Instant expires) {}

  private final Map<String, Code> codes = bounded();
  private final Map<String, Code> redeemed = bounded();
  private final Map<String, Refresh> refreshes = bounded();
  private final Map<String, Refresh> replaced = bounded();
  private final Map<String, Device> devices = bounded();
  private final Map<String, Optional<String>> decided = bounded();
  private final Map<String, Pushed> pushed = bounded();

  private static <V> Map<String, V> bounded() {
    return new LinkedHashMap<>() {
      private static final long serialVersionUID = 1;

      @Override
      protected boolean removeEldestEntry(Map.Entry<String, V> eldest) {
        return size() > MOST;
      }
    };
  }

  /** Begins with another test: what an earlier one holds is not valid any more. */
  synchronized void startAgain() {
    codes.clear();
    redeemed.clear();
    devices.clear();
    decided.clear();
    pushed.clear();
  }

  /** Returns a text that cannot be guessed. */
  static String random() {
    return UUID.randomUUID().toString().replace("-", "");
  }

  synchronized String add(Code code) {
    String name = random();
    codes.put(name, code);
    return name;
  }

  /** Redeems a code; empty if it is unknown, or was redeemed before. */
  synchronized Optional<Code> redeem(String name) {
    Code code = codes.remove(name);
    if (code != null) {
      redeemed.put(name, code);
    }
    return Optional.ofNullable(code);
  }

  /** Returns a code that was redeemed before. */
  synchronized Optional<Code> redeemed(String name) {
    return Optional.ofNullable(redeemed.get(name));
  }

  synchronized String add(Refresh refresh) {
    String name = random();
    refreshes.put(name, refresh);
    return name;
  }

  /** Returns a refresh token that can be used. */
  synchronized Optional<Refresh> refresh(String name) {
    return Optional.ofNullable(refreshes.get(name));
  }

  /** Returns a refresh token that another one has replaced. */
  synchronized Optional<Refresh> replaced(String name) {
    return Optional.ofNullable(replaced.get(name));
  }

  /** Ends a refresh token, because there is another one. */
  synchronized void replace(String name) {
    Refresh old = refreshes.remove(name);
    if (old != null) {
      replaced.put(name, old);
    }
  }

  /** Ends all refresh tokens of a family; returns true if there was one. */
  synchronized boolean revoke(String family) {
    return refreshes.values().removeIf(it -> it.family().equals(family));
  }

  /** Ends all refresh tokens of a session. */
  synchronized void endSession(String session) {
    refreshes.values().removeIf(it -> it.grant().session().equals(session));
  }

  synchronized String add(Device device) {
    String name = random();
    devices.put(name, device);
    return name;
  }

  synchronized Optional<Device> device(String name) {
    return Optional.ofNullable(devices.get(name));
  }

  /** Returns true if a device waits with this user code. */
  synchronized boolean isWaiting(String userCode) {
    return devices.values().stream().anyMatch(it -> it.userCode().equals(userCode));
  }

  /** A user has allowed a device, or denied it. */
  synchronized void decide(String userCode, Optional<String> user) {
    decided.put(userCode, user);
  }

  /** Returns what was decided of a device: its user, or empty for a denial; null if nothing was. */
  synchronized Optional<Optional<String>> decision(String userCode) {
    return Optional.ofNullable(decided.get(userCode));
  }

  /** Ends a device. */
  synchronized void endDevice(String name) {
    devices.remove(name);
  }

  synchronized String add(Pushed parameters) {
    String name = "urn:ietf:params:oauth:request_uri:" + random();
    pushed.put(name, parameters);
    return name;
  }

  /** Returns pushed parameters, once. */
  synchronized Optional<Pushed> takePushed(String name) {
    return Optional.ofNullable(pushed.remove(name));
  }
}
