// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import java.io.IOException;
import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509ExtendedTrustManager;
import org.jspecify.annotations.Nullable;

/**
 * The JDK's own verdict on a chain, as if its trust store contained our authority: so a flawed
 * certificate is rejected in the usual words.
 */
final class StrictTrust {

  /** The JDK rejects the key exchange algorithm UNKNOWN of TLS 1.3. */
  private static final String ANY_KEY_EXCHANGE = "UNKNOWN";

  private final X509ExtendedTrustManager jdk;

  private StrictTrust(X509ExtendedTrustManager jdk) {
    this.jdk = jdk;
  }

  static StrictTrust of(X509Certificate authority) {
    try {
      KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
      store.load(null, null);
      store.setCertificateEntry("authority", authority);
      TrustManagerFactory factory = TrustManagerFactory.getInstance("PKIX");
      factory.init(store);
      return new StrictTrust((X509ExtendedTrustManager) factory.getTrustManagers()[0]);
    } catch (GeneralSecurityException | IOException impossible) {
      throw new IllegalStateException("this JVM has no PKIX trust manager", impossible);
    }
  }

  void check(X509Certificate[] chain, @Nullable Object connection) throws CertificateException {
    if (connection instanceof SSLEngine engine) {
      jdk.checkServerTrusted(chain, ANY_KEY_EXCHANGE, engine);
    } else if (connection instanceof Socket socket) {
      jdk.checkServerTrusted(chain, ANY_KEY_EXCHANGE, socket);
    } else {
      jdk.checkServerTrusted(chain, ANY_KEY_EXCHANGE);
    }
  }
}
