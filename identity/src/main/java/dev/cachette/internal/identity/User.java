// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * A user. Immutable.
 *
 * @param name the name that the test has given
 * @param claims what is known of the user, {@code sub} included
 */
public record User(String name, Map<String, Object> claims) {

  /** Copies the claims. */
  public User {
    claims = Collections.unmodifiableMap(new LinkedHashMap<>(claims));
  }

  /** Returns a user of whom only the name is known. */
  static User of(String name) {
    Map<String, Object> claims = new LinkedHashMap<>();
    claims.put("sub", name);
    claims.put("preferred_username", name);
    return new User(name, claims);
  }

  User with(String claim, Object value) {
    Map<String, Object> more = new LinkedHashMap<>(claims);
    more.put(claim, value);
    return new User(name, more);
  }

  String subject() {
    return claims.get("sub").toString();
  }
}
