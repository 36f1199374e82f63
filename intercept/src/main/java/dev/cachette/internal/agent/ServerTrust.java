// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Decides whether certificates are Cachette's own. */
@FunctionalInterface
public interface ServerTrust {

  /**
   * Returns true if this chain is Cachette's own, and valid. Others are left to the JDK.
   *
   * @param chain the server's chain, its own certificate first
   * @param host the requested host, if it is known
   * @param connection the socket or engine, if there is one
   * @throws CertificateException if it is Cachette's own and must be rejected
   */
  boolean trusts(X509Certificate[] chain, Optional<String> host, @Nullable Object connection)
      throws CertificateException;
}
