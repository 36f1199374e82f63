package dev.cachette.internal.tls;

import dev.cachette.internal.uri.Hosts;
import java.math.BigInteger;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;

/**
 * A certificate authority that lives in memory as long as one session, and issues a certificate to
 * each host that is asked for. Its key leaves neither this object nor this JVM.
 */
final class Authority {

  private final KeyPair authorityKey;
  private final KeyPair serverKey;
  private final X509Certificate certificate;
  private final AtomicLong serials = new AtomicLong(1);
  private final Map<String, X509Certificate> issued = new ConcurrentHashMap<>();

  Authority() {
    try {
      KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
      generator.initialize(new ECGenParameterSpec("secp256r1"));
      authorityKey = generator.generateKeyPair();
      serverKey = generator.generateKeyPair();
      certificate =
          new CertificateTemplate(
                  BigInteger.ONE,
                  CertificateTemplate.AUTHORITY,
                  authorityKey.getPublic(),
                  CertificateTemplate.authorityExtensions())
              .sign(authorityKey.getPrivate(), Instant.now());
    } catch (GeneralSecurityException noP256) {
      throw new IllegalStateException("this JVM has no P-256 keys, which TLS needs", noP256);
    }
  }

  /** The chain for a host, its own certificate first; issued at the first call. */
  X509Certificate[] chainFor(String host) {
    X509Certificate leaf = issued.computeIfAbsent(Hosts.canonical(host), this::issue);
    return new X509Certificate[] {leaf, certificate};
  }

  PrivateKey serverKey() {
    return serverKey.getPrivate();
  }

  /** Whether we issued this certificate, and for this host where it is known. */
  boolean hasIssued(X509Certificate leaf, Optional<String> host) {
    return host.map(name -> leaf.equals(issued.get(Hosts.canonical(name))))
        .orElseGet(() -> issued.containsValue(leaf));
  }

  private X509Certificate issue(String host) {
    try {
      return new CertificateTemplate(
              BigInteger.valueOf(serials.incrementAndGet()),
              host,
              serverKey.getPublic(),
              CertificateTemplate.serverExtensions(host))
          .sign(authorityKey.getPrivate(), Instant.now());
    } catch (GeneralSecurityException failed) {
      throw new IllegalStateException("no certificate can be issued for " + host, failed);
    }
  }
}
