package dev.cachette.internal.agent;

import java.security.cert.X509Certificate;
import java.util.Optional;

/** Tells our own certificates from all others. */
@FunctionalInterface
public interface ServerTrust {

  /**
   * Whether this certificate is ours.
   *
   * @param leaf what the server showed
   * @param host the host that was asked for, where the connection knows it
   */
  boolean isOurs(X509Certificate leaf, Optional<String> host);
}
