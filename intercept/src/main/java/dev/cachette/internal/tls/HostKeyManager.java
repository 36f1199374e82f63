package dev.cachette.internal.tls;

import java.net.Socket;
import java.security.Principal;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import javax.net.ssl.ExtendedSSLSession;
import javax.net.ssl.SNIHostName;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLSession;
import javax.net.ssl.X509ExtendedKeyManager;

/**
 * Selects the certificate of the host that the client requests by name (SNI, RFC 6066), else of the
 * host it connected to. An alias is a host.
 */
final class HostKeyManager extends X509ExtendedKeyManager {

  private final Authority authority;
  private final Flaw flaw;

  HostKeyManager(Authority authority, Flaw flaw) {
    this.authority = authority;
    this.flaw = flaw;
  }

  @Override
  public String chooseEngineServerAlias(String keyType, Principal[] issuers, SSLEngine engine) {
    return keyType.startsWith("EC") ? hostAskedFor(engine) : null;
  }

  @Override
  public X509Certificate[] getCertificateChain(String host) {
    return authority.chainFor(host, flaw);
  }

  @Override
  public PrivateKey getPrivateKey(String host) {
    return authority.serverKey();
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
