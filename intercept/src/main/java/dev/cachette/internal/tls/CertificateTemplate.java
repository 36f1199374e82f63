// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import dev.cachette.internal.uri.Hosts;
import java.io.ByteArrayInputStream;
import java.math.BigInteger;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.PrivateKey;
import java.security.PublicKey;
import java.security.Signature;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.time.Instant;

/**
 * The content of a certificate (RFC 5280), to be signed.
 *
 * @param serial its serial number, unique for an authority
 * @param subject the common name
 * @param key its public key
 * @param extensions its extensions, as DER
 * @param from the first instant of its validity
 * @param to the last instant of its validity
 */
record CertificateTemplate(
    BigInteger serial, String subject, PublicKey key, byte[] extensions, Instant from, Instant to) {

  static final String AUTHORITY = "Cachette, trusted by this JVM only";

  private static final byte[] ECDSA_WITH_SHA256 = Der.sequence(Der.oid("1.2.840.10045.4.3.2"));

  static byte[] authorityExtensions() {
    byte[] mayIssue = Der.octets(Der.sequence(Der.bool(true)));
    return Der.sequence(Der.sequence(Der.oid("2.5.29.19"), Der.bool(true), mayIssue));
  }

  static byte[] serverExtensions(String host) {
    byte[] alternativeName = Der.octets(Der.sequence(generalName(host)));
    byte[] forServers = Der.octets(Der.sequence(Der.oid("1.3.6.1.5.5.7.3.1")));
    return Der.sequence(
        Der.sequence(Der.oid("2.5.29.17"), alternativeName),
        Der.sequence(Der.oid("2.5.29.37"), forServers));
  }

  X509Certificate sign(PrivateKey issuer) throws GeneralSecurityException {
    byte[] content =
        Der.sequence(
            Der.explicit(0, Der.integer(BigInteger.TWO)),
            Der.integer(serial),
            ECDSA_WITH_SHA256,
            name(AUTHORITY),
            Der.sequence(Der.time(from), Der.time(to)),
            name(subject),
            key.getEncoded(),
            Der.explicit(3, extensions));
    Signature signature = Signature.getInstance("SHA256withECDSA");
    signature.initSign(issuer);
    signature.update(content);
    byte[] whole = Der.sequence(content, ECDSA_WITH_SHA256, Der.bits(signature.sign()));
    return (X509Certificate)
        CertificateFactory.getInstance("X.509")
            .generateCertificate(new ByteArrayInputStream(whole));
  }

  private static byte[] name(String commonName) {
    // A common name has at most 64 characters; a longer host is only in the alternative name.
    String fitting = commonName.substring(0, Math.min(64, commonName.length()));
    return Der.sequence(Der.set(Der.sequence(Der.oid("2.5.4.3"), Der.utf8(fitting))));
  }

  /** Returns a DNS name, or an IP address, which clients look for in another field. */
  private static byte[] generalName(String host) {
    try {
      // A literal address is parsed, not resolved.
      return Hosts.isAddress(host)
          ? Der.implicit(7, InetAddress.getByName(host).getAddress())
          : Der.implicit(2, host.getBytes(StandardCharsets.US_ASCII));
    } catch (UnknownHostException noAddress) {
      return Der.implicit(2, host.getBytes(StandardCharsets.US_ASCII));
    }
  }
}
