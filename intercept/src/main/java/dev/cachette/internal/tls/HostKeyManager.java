// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import java.net.Socket;
import java.security.Principal;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.util.Arrays;
import javax.net.ssl.ExtendedSSLSession;
import javax.net.ssl.SNIHostName;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLSession;
import javax.net.ssl.X509ExtendedKeyManager;

/**
 * Selects the certificate of the host that the client requests by name (SNI, RFC 6066), else of the
 * host it connected to. An alias is a host, after the kind of its key unless that is the usual one.
 */
final class HostKeyManager extends X509ExtendedKeyManager {

  private static final String RSA = "RSA";

  private final Authority authority;
  private final Flaw flaw;

  HostKeyManager(Authority authority, Flaw flaw) {
    this.authority = authority;
    this.flaw = flaw;
  }

  @Override
  public String chooseEngineServerAlias(String keyType, Principal[] issuers, SSLEngine engine) {
    if (keyType.startsWith("EC")) {
      return hostAskedFor(engine);
    }
    return keyType.equals(RSA) && !takesElliptic(engine) ? RSA + " " + hostAskedFor(engine) : null;
  }

  /** Returns true if a client of TLS 1.3 takes our usual key; in 1.2, its cipher suites decide. */
  private static boolean takesElliptic(SSLEngine engine) {
    return engine.getHandshakeSession() instanceof ExtendedSSLSession session
        && session.getProtocol().equals("TLSv1.3")
        && Arrays.stream(session.getPeerSupportedSignatureAlgorithms())
            .anyMatch(algorithm -> algorithm.endsWith("withECDSA"));
  }

  @Override
  public X509Certificate[] getCertificateChain(String alias) {
    return authority.chainFor(host(alias), flaw, isRsa(alias));
  }

  @Override
  public PrivateKey getPrivateKey(String alias) {
    return authority.serverKey(isRsa(alias));
  }

  private static boolean isRsa(String alias) {
    return alias.startsWith(RSA + " ");
  }

  private static String host(String alias) {
    return isRsa(alias) ? alias.substring(RSA.length() + 1) : alias;
  }

  private static String hostAskedFor(SSLEngine engine) {
    SSLSession session = engine.getHandshakeSession();
    if (session instanceof ExtendedSSLSession extended) {
      return extended.getRequestedServerNames().stream()
          .filter(SNIHostName.class::isInstance)
          .map(name -> ((SNIHostName) name).getAsciiName())
          .findFirst()
          .orElse(engine.getPeerHost());
    }
    return engine.getPeerHost();
  }

  @Override
  public String[] getServerAliases(String keyType, Principal[] issuers) {
    return new String[0];
  }

  @Override
  public String chooseServerAlias(String keyType, Principal[] issuers, Socket socket) {
    return null;
  }

  @Override
  public String[] getClientAliases(String keyType, Principal[] issuers) {
    return new String[0];
  }

  @Override
  public String chooseClientAlias(String[] keyTypes, Principal[] issuers, Socket socket) {
    return null;
  }
}
