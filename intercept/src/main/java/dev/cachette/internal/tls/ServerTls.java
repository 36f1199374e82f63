package dev.cachette.internal.tls;

import dev.cachette.internal.agent.ServerTrust;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.util.Optional;
import javax.net.ssl.KeyManager;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLParameters;
import javax.net.ssl.TrustManager;
import org.jspecify.annotations.Nullable;

/**
 * The server's side of TLS for one session. Keys and certificates are made when the first client
 * asks for TLS, so that tests of plain HTTP do not pay for them.
 */
public final class ServerTls implements ServerTrust {

  private volatile @Nullable Material material;

  /**
   * An engine for one connection.
   *
   * @param host whose certificate is shown where the client names no host itself
   * @param applicationProtocols what may be agreed on (ALPN, RFC 7301), the best first
   */
  public SSLEngine engineFor(String host, int port, String... applicationProtocols) {
    SSLEngine engine = material().context.createSSLEngine(host, port);
    engine.setUseClientMode(false);
    SSLParameters parameters = engine.getSSLParameters();
    parameters.setApplicationProtocols(applicationProtocols);
    engine.setSSLParameters(parameters);
    return engine;
  }

  @Override
  public boolean isOurs(X509Certificate leaf, Optional<String> host) {
    Material made = material;
    return made != null && made.authority.hasIssued(leaf, host);
  }

  private Material material() {
    if (material == null) {
      synchronized (this) {
        if (material == null) {
          material = Material.make();
        }
      }
    }
    return material;
  }

  private record Material(Authority authority, SSLContext context) {

    static Material make() {
      Authority authority = new Authority();
      try {
        SSLContext context = SSLContext.getInstance("TLS");
        // No trust managers: reading the JVM's trust store would cost time, and no client is asked.
        context.init(new KeyManager[] {new HostKeyManager(authority)}, new TrustManager[0], null);
        return new Material(authority, context);
      } catch (GeneralSecurityException impossible) {
        throw new IllegalStateException("this JVM has no TLS", impossible);
      }
    }
  }
}
