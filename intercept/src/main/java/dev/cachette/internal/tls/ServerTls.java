// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import dev.cachette.internal.agent.ServerTrust;
import java.security.GeneralSecurityException;
import java.security.cert.CertificateEncodingException;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import javax.net.ssl.KeyManager;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLParameters;
import javax.net.ssl.TrustManager;
import org.jspecify.annotations.Nullable;

/**
 * The server side of TLS for one session. Keys and certificates are created at the first TLS
 * connection, so that tests of plain HTTP do not pay for them.
 */
public final class ServerTls implements ServerTrust {

  private final Optional<AuthorityFile> file;
  private final boolean asksClients;
  private volatile @Nullable Authority authority;

  /** One per flaw, so that no session with a good certificate is resumed with a bad one. */
  private final Map<Flaw, SSLContext> contexts = new EnumMap<>(Flaw.class);

  /**
   * Creates it.
   *
   * @param file of a persistent authority; empty for one in memory
   * @param asksClients whether clients are asked for a certificate
   */
  public ServerTls(Optional<AuthorityFile> file, boolean asksClients) {
    this.file = file;
    this.asksClients = asksClients;
  }

  /**
   * Returns an engine for one connection.
   *
   * @param host the host of the certificate, if the client requests none
   * @param flaw the flaw of that certificate
   * @param applicationProtocols protocols for ALPN (RFC 7301), preferred first
   */
  public SSLEngine engineFor(String host, int port, Flaw flaw, String... applicationProtocols) {
    SSLEngine engine = context(flaw).createSSLEngine(host, port);
    engine.setUseClientMode(false);
    engine.setWantClientAuth(asksClients);
    SSLParameters parameters = engine.getSSLParameters();
    parameters.setApplicationProtocols(applicationProtocols);
    engine.setSSLParameters(parameters);
    return engine;
  }

  /**
   * Makes the keys and the certificate for a host, for which its first connection would wait.
   * Nothing of an authority in a file, which may be out of order: who connects is to be told.
   */
  public void prepare(String host) {
    if (file.isEmpty()) {
      engineFor(host, 443, Flaw.NONE);
      authority().chainFor(host, Flaw.NONE, false);
    }
  }

  /** Returns true if clients are asked for a certificate. */
  public boolean asksClients() {
    return asksClients;
  }

  /** Returns the certificate of the authority, as PEM (RFC 7468). */
  public String authorityPem() {
    try {
      return AuthorityFile.pem("CERTIFICATE", authority().certificate().getEncoded());
    } catch (CertificateEncodingException impossible) {
      throw new IllegalStateException("our own certificate cannot be written", impossible);
    }
  }

  @Override
  public boolean trusts(X509Certificate[] chain, Optional<String> host, @Nullable Object connection)
      throws CertificateException {
    Authority ours = authority;
    if (ours == null) {
      return false;
    }
    if (ours.hasIssued(chain[0], host)) {
      return true;
    }
    if (ours.hasFlaw(chain[0]) || ours.hasIssued(chain[0], Optional.empty())) {
      // For another host, for example: the JDK's check of names says so.
      StrictTrust.of(ours.certificate()).check(chain, connection);
      return true;
    }
    return false;
  }

  private synchronized SSLContext context(Flaw flaw) {
    return contexts.computeIfAbsent(flaw, this::make);
  }

  private SSLContext make(Flaw flaw) {
    try {
      Authority issuer = flaw == Flaw.UNTRUSTED ? new Authority() : authority();
      SSLContext context = SSLContext.getInstance("TLS");
      context.init(
          new KeyManager[] {new HostKeyManager(issuer, flaw)},
          new TrustManager[] {new AnyClient()},
          null);
      return context;
    } catch (GeneralSecurityException impossible) {
      throw new IllegalStateException("this JVM has no TLS", impossible);
    }
  }

  private Authority authority() {
    Authority made = authority;
    if (made == null) {
      synchronized (this) {
        made = authority;
        if (made == null) {
          made = file.map(AuthorityFile::readOrMake).orElseGet(Authority::new);
          authority = made;
        }
      }
    }
    return made;
  }
}
