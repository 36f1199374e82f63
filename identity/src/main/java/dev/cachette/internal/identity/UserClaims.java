// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;

/** Which claims of a user are where (OpenID Connect Core section 5.4). */
final class UserClaims {

  private static final Map<String, Set<String>> BY_SCOPE =
      Map.of(
          "profile",
          Set.of(
              "name",
              "family_name",
              "given_name",
              "middle_name",
              "nickname",
              "preferred_username",
              "profile",
              "picture",
              "website",
              "gender",
              "birthdate",
              "zoneinfo",
              "locale",
              "updated_at"),
          "email",
          Set.of("email", "email_verified"),
          "address",
          Set.of("address"),
          "phone",
          Set.of("phone_number", "phone_number_verified"));

  private UserClaims() {}

  /** Returns those that these scopes ask for, and those that are not of the standard. */
  static Map<String, Object> of(User user, Set<String> scopes) {
    Map<String, Object> claims = custom(user);
    user.claims()
        .forEach(
            (name, value) -> {
              if (scopes.stream()
                  .anyMatch(scope -> BY_SCOPE.getOrDefault(scope, Set.of()).contains(name))) {
                claims.put(name, value);
              }
            });
    return claims;
  }

  /** Returns those that are not of the standard. */
  static Map<String, Object> custom(User user) {
    Map<String, Object> claims = new LinkedHashMap<>(user.claims());
    claims.remove("sub");
    BY_SCOPE.values().forEach(claims.keySet()::removeAll);
    return claims;
  }
}
