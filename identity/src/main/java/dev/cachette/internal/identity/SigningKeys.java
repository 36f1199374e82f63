// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.identity.option.SigningAlgorithm;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The keys of a provider: the newest signs, those before it are still published. Generating one
 * takes long, so providers of the same issuer in this JVM have the same. Thread-safe.
 */
final class SigningKeys {

  private static final Map<String, SigningKey> GENERATED = new ConcurrentHashMap<>();

  private final String issuer;
  private final List<SigningKey> published = new ArrayList<>();
  private SigningAlgorithm algorithm = SigningAlgorithm.RS256;
  private int generation;

  SigningKeys(String issuer) {
    this.issuer = issuer;
  }

  /** Sets the algorithm of the keys. */
  synchronized void use(SigningAlgorithm other) {
    if (algorithm != other) {
      algorithm = other;
      published.clear();
    }
  }

  /** Returns the algorithm. */
  synchronized SigningAlgorithm used() {
    return algorithm;
  }

  /** Signs with a new key from now on. */
  synchronized void rotate() {
    current();
    generation++;
    published.add(0, named(generation));
  }

  /** Begins with the first key again. */
  synchronized void startAgain() {
    generation = 0;
    published.clear();
  }

  /** Returns the key that signs. */
  synchronized SigningKey current() {
    if (published.isEmpty()) {
      published.add(named(generation));
    }
    return published.get(0);
  }

  /** Returns a key that is never published. */
  synchronized SigningKey unknown() {
    return named(-1);
  }

  private SigningKey named(int number) {
    return GENERATED.computeIfAbsent(
        issuer + " " + algorithm + " " + number, any -> SigningKey.generate(algorithm));
  }

  /** Returns what is published. */
  synchronized JWKSet published() {
    current();
    return new JWKSet(published.stream().map(SigningKey::published).map(JWK.class::cast).toList());
  }

  /** Returns true if one of the published keys has signed a token. */
  synchronized boolean haveSigned(SignedJWT token) {
    current();
    return published.stream().anyMatch(key -> key.hasSigned(token));
  }
}
