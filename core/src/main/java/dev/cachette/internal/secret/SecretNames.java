package dev.cachette.internal.secret;

import java.util.HashMap;
import java.util.Map;

/**
 * Remembers the answers of a policy about names: a body has few names and many values. Thread-safe.
 */
final class SecretNames {

  /** Names of one test run are fewer; names that come from data are more. */
  private static final int MOST = 4_000;

  private final SecretPolicy policy;
  private final Map<String, Name> known = new HashMap<>();

  SecretNames(SecretPolicy policy) {
    this.policy = policy;
  }

  /**
   * A name.
   *
   * @param isSecret whether its value is secret
   * @param ofRandom whether its value is secret if it looks random
   * @param ofMixed whether its value is secret unless it is a word
   */
  record Name(boolean isSecret, boolean ofRandom, boolean ofMixed) {}

  synchronized Name of(String name) {
    if (known.size() >= MOST) {
      known.clear();
    }
    return known.computeIfAbsent(
        name,
        unknown ->
            new Name(
                policy.isSecret(unknown), policy.isOfRandom(unknown), policy.isOfMixed(unknown)));
  }

  boolean isSecret(String name) {
    return of(name).isSecret();
  }
}
