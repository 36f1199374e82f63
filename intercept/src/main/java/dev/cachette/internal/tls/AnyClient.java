// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import java.net.Socket;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.X509ExtendedTrustManager;

/** Accepts every client, whoever issued its certificate, and names no issuer to choose by. */
final class AnyClient extends X509ExtendedTrustManager {

  @Override
  public void checkClientTrusted(X509Certificate[] chain, String type) {}

  @Override
  public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) {}

  @Override
  public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) {}

  @Override
  public void checkServerTrusted(X509Certificate[] chain, String type) {
    throw new UnsupportedOperationException("this is for servers");
  }

  @Override
  public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) {
    throw new UnsupportedOperationException("this is for servers");
  }

  @Override
  public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) {
    throw new UnsupportedOperationException("this is for servers");
  }

  @Override
  public X509Certificate[] getAcceptedIssuers() {
    return new X509Certificate[0];
  }
}
