// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import javax.net.ssl.KeyManager;
import javax.net.ssl.SSLContext;

/** A TLS server whose certificate an authority like ours has issued, but not ours. */
public final class ForeignServer {

  private ForeignServer() {}

  /** Its side of TLS. */
  public static SSLContext context() throws Exception {
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(new KeyManager[] {new HostKeyManager(new Authority(), Flaw.NONE)}, null, null);
    return context;
  }
}
