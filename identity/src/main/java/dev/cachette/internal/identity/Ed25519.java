// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.JWSSigner;
import com.nimbusds.jose.JWSVerifier;
import com.nimbusds.jose.jca.JCAContext;
import com.nimbusds.jose.util.Base64URL;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.Signature;
import java.util.Set;

/** Signatures with Ed25519 (RFC 8037) of the JDK; the library needs another one for them. */
record Ed25519(KeyPair pair) implements JWSSigner, JWSVerifier {

  private static final String NAME = "Ed25519";
  private static final JCAContext CONTEXT = new JCAContext();

  @Override
  public Base64URL sign(JWSHeader header, byte[] input) throws JOSEException {
    try {
      Signature signature = Signature.getInstance(NAME);
      signature.initSign(pair.getPrivate());
      signature.update(input);
      return Base64URL.encode(signature.sign());
    } catch (GeneralSecurityException failed) {
      throw new JOSEException(failed.getMessage(), failed);
    }
  }

  @Override
  public boolean verify(JWSHeader header, byte[] input, Base64URL signed) throws JOSEException {
    try {
      Signature signature = Signature.getInstance(NAME);
      signature.initVerify(pair.getPublic());
      signature.update(input);
      return signature.verify(signed.decode());
    } catch (GeneralSecurityException malformed) {
      return false;
    }
  }

  @Override
  public Set<JWSAlgorithm> supportedJWSAlgorithms() {
    return Set.of(JWSAlgorithm.EdDSA);
  }

  @Override
  public JCAContext getJCAContext() {
    return CONTEXT;
  }
}
