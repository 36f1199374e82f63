// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import java.util.HashMap;
import java.util.Map;

/**
 * Remembers the answers of a policy about names: there are few names and many values. Thread-safe.
 */
final class SecretNames {

  /** Names of one test run are fewer; names that come from data are more. */
  private static final int MOST = 4_000;

  private final SecretPolicy policy;
  private final Map<String, Name> known = new HashMap<>();
  private final Map<String, Header> headers = new HashMap<>();

  SecretNames(SecretPolicy policy) {
    this.policy = policy;
  }

  /**
   * A name.
   *
   * @param isSecret whether its value is secret
   * @param ofRandom whether its value is secret if it looks random
   * @param ofMixed whether its value is secret unless it is a word
   * @param ofParameter whether its value is secret in a URL
   */
  record Name(boolean isSecret, boolean ofRandom, boolean ofMixed, boolean ofParameter) {}

  /**
   * The name of a header.
   *
   * @param isExcepted whether the user says that it is not secret
   * @param isSecret whether its value is secret
   */
  record Header(boolean isExcepted, boolean isSecret) {}

  synchronized Name of(String name) {
    return ofAny(known, name)
        .computeIfAbsent(
            name,
            unknown ->
                new Name(
                    policy.isSecret(unknown),
                    policy.isOfRandom(unknown),
                    policy.isOfMixed(unknown),
                    policy.isSecretParameter(unknown)));
  }

  synchronized Header ofHeader(String name) {
    return ofAny(headers, name)
        .computeIfAbsent(
            name,
            unknown -> new Header(policy.isExcepted(unknown), policy.isSecretHeader(unknown)));
  }

  private static <T> Map<String, T> ofAny(Map<String, T> names, String name) {
    if (names.size() >= MOST && !names.containsKey(name)) {
      names.clear();
    }
    return names;
  }

  boolean isSecret(String name) {
    return of(name).isSecret();
  }
}
