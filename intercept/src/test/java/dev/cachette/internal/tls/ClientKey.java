// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import java.net.Socket;
import java.security.Principal;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import javax.net.ssl.KeyManager;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.X509ExtendedKeyManager;

/** The key of a client, with a certificate of an authority of its own. */
public final class ClientKey extends X509ExtendedKeyManager {

  private final Authority issuer = new Authority();
  private final String name;

  private ClientKey(String name) {
    this.name = name;
  }

  /** Returns a client's side of TLS, with the trust settings of the JVM. */
  public static SSLContext context(String name) throws Exception {
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(new KeyManager[] {new ClientKey(name)}, null, null);
    return context;
  }

  @Override
  public String chooseClientAlias(String[] types, Principal[] issuers, Socket socket) {
    return name;
  }

  @Override
  public String chooseEngineClientAlias(String[] types, Principal[] issuers, SSLEngine engine) {
    return name;
  }

  @Override
  public X509Certificate[] getCertificateChain(String alias) {
    return issuer.chainFor(alias, Flaw.NONE, false);
  }

  @Override
  public PrivateKey getPrivateKey(String alias) {
    return issuer.serverKey(false);
  }

  @Override
  public String[] getClientAliases(String type, Principal[] issuers) {
    return new String[] {name};
  }

  @Override
  public String[] getServerAliases(String type, Principal[] issuers) {
    return new String[0];
  }

  @Override
  public String chooseServerAlias(String type, Principal[] issuers, Socket socket) {
    return null;
  }
}
