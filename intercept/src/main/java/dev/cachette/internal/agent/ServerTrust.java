package dev.cachette.internal.agent;

import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Tells our own certificates from all others. */
@FunctionalInterface
public interface ServerTrust {

  /**
   * Whether this chain is ours, and good. What is not ours is left to the JDK.
   *
   * @param chain what the server showed, its own certificate first
   * @param host the host that was asked for, where the connection knows it
   * @param connection the socket or engine, where there is one
   * @throws CertificateException if it is ours and meant to be refused
   */
  boolean trusts(X509Certificate[] chain, Optional<String> host, @Nullable Object connection)
      throws CertificateException;
}
