// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import dev.cachette.internal.uri.Hosts;
import java.math.BigInteger;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.SecureRandom;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;

/**
 * An in-memory certificate authority for one session, which issues a certificate for each host. Its
 * key leaves neither this object nor this JVM.
 */
final class Authority {

  /** The host of the certificate for the wrong host. */
  private static final String SOMEBODY_ELSE = "elsewhere.example";

  /** Long enough for a test, and for clocks that are a little off. */
  private static final Duration LONG = Duration.ofDays(180);

  private static final int RSA_BITS = 2048;

  private static final Duration A_DAY = Duration.ofDays(1);

  private final PrivateKey authorityKey;
  private final KeyPair serverKey;
  private @Nullable KeyPair rsaKey;
  private final X509Certificate certificate;
  private final AtomicLong serials;
  private final Map<String, X509Certificate> issued = new ConcurrentHashMap<>();
  private final Map<String, X509Certificate> flawed = new ConcurrentHashMap<>();

  /** Creates one for one session. */
  Authority() {
    this(LONG);
  }

  /** Creates one that is valid for this duration. */
  Authority(Duration validity) {
    try {
      KeyPair authority = keyPair();
      authorityKey = authority.getPrivate();
      serverKey = keyPair();
      serials = new AtomicLong(1);
      certificate =
          new CertificateTemplate(
                  BigInteger.ONE,
                  CertificateTemplate.AUTHORITY,
                  authority.getPublic(),
                  CertificateTemplate.authorityExtensions(),
                  Instant.now().minus(LONG),
                  Instant.now().plus(validity))
              .sign(authorityKey);
    } catch (GeneralSecurityException noP256) {
      throw new IllegalStateException("this JVM has no P-256 keys, which TLS needs", noP256);
    }
  }

  /** Restores an existing one. */
  Authority(PrivateKey key, X509Certificate certificate) {
    try {
      this.authorityKey = key;
      this.certificate = certificate;
      this.serverKey = keyPair();
      // Browsers reject two certificates of one issuer with the same serial number.
      this.serials = new AtomicLong(new SecureRandom().nextLong(1L << 32, 1L << 62));
    } catch (GeneralSecurityException noP256) {
      throw new IllegalStateException("this JVM has no P-256 keys, which TLS needs", noP256);
    }
  }

  /**
   * Returns the chain for a host, its own certificate first; issued at the first call.
   *
   * @param rsa whether its key is RSA, for clients that know no other
   */
  X509Certificate[] chainFor(String host, Flaw flaw, boolean rsa) {
    String key = (rsa ? "RSA " : "") + Hosts.canonical(host);
    X509Certificate leaf =
        flaw == Flaw.NONE
            ? issued.computeIfAbsent(key, unused -> issue(Hosts.canonical(host), flaw, rsa))
            : flawed.computeIfAbsent(flaw + " " + key, unused -> issue(host, flaw, rsa));
    return new X509Certificate[] {leaf, certificate};
  }

  /** Returns its own certificate, the root of all others. */
  X509Certificate certificate() {
    return certificate;
  }

  /** Returns true if it issued this certificate with a flaw. */
  boolean hasFlaw(X509Certificate leaf) {
    return flawed.containsValue(leaf);
  }

  private static KeyPair keyPair() throws GeneralSecurityException {
    KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
    generator.initialize(new ECGenParameterSpec("secp256r1"));
    return generator.generateKeyPair();
  }

  /** Returns the trust anchor of all its certificates. */
  PrivateKey key() {
    return authorityKey;
  }

  PrivateKey serverKey(boolean rsa) {
    return (rsa ? rsaKey() : serverKey).getPrivate();
  }

  /** Created for the first client that needs it, as that takes long. */
  private synchronized KeyPair rsaKey() {
    if (rsaKey == null) {
      try {
        KeyPairGenerator generator = KeyPairGenerator.getInstance("RSA");
        generator.initialize(RSA_BITS);
        rsaKey = generator.generateKeyPair();
      } catch (GeneralSecurityException noRsa) {
        throw new IllegalStateException("this JVM has no RSA keys", noRsa);
      }
    }
    return rsaKey;
  }

  /** Returns true if it issued this certificate, and for this host if it is known. */
  boolean hasIssued(X509Certificate leaf, Optional<String> host) {
    return host.map(Hosts::canonical)
        .map(name -> leaf.equals(issued.get(name)) || leaf.equals(issued.get("RSA " + name)))
        .orElseGet(() -> issued.containsValue(leaf));
  }

  private X509Certificate issue(String host, Flaw flaw, boolean rsa) {
    Instant now = Instant.now();
    Instant from = flaw == Flaw.NOT_YET_VALID ? now.plus(A_DAY) : now.minus(LONG);
    Instant to = flaw == Flaw.EXPIRED ? now.minus(A_DAY) : now.plus(LONG);
    String name = flaw == Flaw.WRONG_HOST ? SOMEBODY_ELSE : host;
    try {
      return new CertificateTemplate(
              BigInteger.valueOf(serials.incrementAndGet()),
              name,
              (rsa ? rsaKey() : serverKey).getPublic(),
              CertificateTemplate.serverExtensions(name),
              from,
              to)
          .sign(authorityKey);
    } catch (GeneralSecurityException failed) {
      throw new IllegalStateException("no certificate can be issued for " + host, failed);
    }
  }
}
