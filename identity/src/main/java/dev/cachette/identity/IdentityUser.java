// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import dev.cachette.internal.identity.Accounts;
import dev.cachette.internal.identity.User;
import dev.cachette.internal.misuse.Refusals;
import java.util.Map;

/**
 * A user of an identity provider, declared by {@link IdentityProvider#user}. Thread-safe.
 *
 * <p>Claims of the standard (OpenID Connect Core section 5.4) are in ID tokens and user info if the
 * scope asks for them: {@code profile}, {@code email}, {@code address}, {@code phone}. Other
 * claims, such as {@code groups}, are in every token of the user.
 */
public final class IdentityUser {

  private final String name;
  private final Accounts accounts;

  IdentityUser(String name, Accounts accounts) {
    this.name = name;
    this.accounts = accounts;
    accounts.declare(name);
  }

  /**
   * Sets a claim.
   *
   * @param claim its name: {@code email}, {@code groups}; {@code sub} is the name of the user by
   *     default
   * @param value a string, number, boolean, list or map
   */
  public IdentityUser claim(String claim, Object value) {
    accounts.claim(
        name,
        Refusals.given("claim(claim, value)", claim),
        Refusals.given("claim(claim, value)", value));
    return this;
  }

  /** Returns the name that it was declared with. */
  public String name() {
    return name;
  }

  /** Returns its claims; empty if it was declared by a test that has ended. */
  public Map<String, Object> claims() {
    return accounts.named(name).map(User::claims).orElse(Map.of());
  }

  @Override
  public String toString() {
    return name;
  }
}
