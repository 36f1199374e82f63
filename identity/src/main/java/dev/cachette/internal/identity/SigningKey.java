// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.JWSSigner;
import com.nimbusds.jose.JWSVerifier;
import com.nimbusds.jose.crypto.ECDSASigner;
import com.nimbusds.jose.crypto.ECDSAVerifier;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.Curve;
import com.nimbusds.jose.jwk.ECKey;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jose.jwk.KeyUse;
import com.nimbusds.jose.jwk.OctetKeyPair;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.util.Base64URL;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.identity.option.SigningAlgorithm;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.interfaces.ECPublicKey;
import java.security.interfaces.RSAPublicKey;
import java.security.spec.ECGenParameterSpec;
import java.util.Arrays;

/** A key that signs tokens. Thread-safe. */
final class SigningKey {

  private static final int RSA_BITS = 2048;

  /** The public key is at the end of its encoded form (RFC 8410). */
  private static final int ED25519_BYTES = 32;

  private final JWSAlgorithm algorithm;
  private final KeyPair pair;
  private final JWK published;

  private SigningKey(JWSAlgorithm algorithm, KeyPair pair, JWK published) {
    this.algorithm = algorithm;
    this.pair = pair;
    this.published = published;
  }

  /** Generates one; its identifier is its thumbprint (RFC 7638). */
  static SigningKey generate(SigningAlgorithm wanted) {
    JWSAlgorithm algorithm = JWSAlgorithm.parse(wanted.toString());
    try {
      KeyPair pair =
          switch (wanted) {
            case RS256 -> {
              KeyPairGenerator rsa = KeyPairGenerator.getInstance("RSA");
              rsa.initialize(RSA_BITS);
              yield rsa.generateKeyPair();
            }
            case ES256 -> {
              KeyPairGenerator ec = KeyPairGenerator.getInstance("EC");
              ec.initialize(new ECGenParameterSpec("secp256r1"));
              yield ec.generateKeyPair();
            }
            case EDDSA -> KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
          };
      return new SigningKey(algorithm, pair, published(algorithm, wanted, pair));
    } catch (GeneralSecurityException | JOSEException missing) {
      throw new IllegalStateException("this JVM has no keys for " + wanted, missing);
    }
  }

  private static JWK published(JWSAlgorithm algorithm, SigningAlgorithm wanted, KeyPair pair)
      throws JOSEException {
    return switch (wanted) {
      case RS256 ->
          new RSAKey.Builder((RSAPublicKey) pair.getPublic())
              .keyUse(KeyUse.SIGNATURE)
              .algorithm(algorithm)
              .keyIDFromThumbprint()
              .build();
      case ES256 ->
          new ECKey.Builder(Curve.P_256, (ECPublicKey) pair.getPublic())
              .keyUse(KeyUse.SIGNATURE)
              .algorithm(algorithm)
              .keyIDFromThumbprint()
              .build();
      case EDDSA -> {
        byte[] encoded = pair.getPublic().getEncoded();
        byte[] x = Arrays.copyOfRange(encoded, encoded.length - ED25519_BYTES, encoded.length);
        yield new OctetKeyPair.Builder(Curve.Ed25519, Base64URL.encode(x))
            .keyUse(KeyUse.SIGNATURE)
            .algorithm(algorithm)
            .keyIDFromThumbprint()
            .build();
      }
    };
  }

  /** Returns the public key, as it is published. */
  JWK published() {
    return published;
  }

  JWSAlgorithm algorithm() {
    return algorithm;
  }

  /** Signs claims. */
  String sign(JWSHeader header, JWTClaimsSet claims) {
    SignedJWT token = new SignedJWT(header, claims);
    try {
      token.sign(signer());
    } catch (JOSEException failed) {
      throw new IllegalStateException("cannot sign a token", failed);
    }
    return token.serialize();
  }

  private JWSSigner signer() throws JOSEException {
    if (published instanceof RSAKey) {
      return new RSASSASigner(pair.getPrivate());
    }
    return published instanceof ECKey
        ? new ECDSASigner(pair.getPrivate(), Curve.P_256)
        : new Ed25519(pair);
  }

  /** Returns true if it has signed a token. */
  boolean hasSigned(SignedJWT token) {
    try {
      JWSVerifier verifier =
          published instanceof RSAKey rsa
              ? new RSASSAVerifier(rsa)
              : published instanceof ECKey ec ? new ECDSAVerifier(ec) : new Ed25519(pair);
      return token.getHeader().getAlgorithm().equals(algorithm) && token.verify(verifier);
    } catch (JOSEException malformed) {
      return false;
    }
  }
}
