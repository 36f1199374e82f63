// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.answer.Fault;
import io.netty.channel.ConnectTimeoutException;
import io.netty.handler.proxy.ProxyConnectException;
import java.net.ConnectException;
import java.net.NoRouteToHostException;
import java.net.UnknownHostException;
import java.security.cert.CertPathBuilderException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateNotYetValidException;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLException;

/** Maps failures to reach a real service to faults. */
final class Failures {

  private Failures() {}

  static Fault.Kind kindOf(Throwable failure) {
    if (failure instanceof UnknownHostException) {
      return Fault.Kind.UNKNOWN_HOST;
    }
    if (failure instanceof ConnectTimeoutException) {
      return Fault.Kind.CONNECT_TIMEOUT;
    }
    if (failure instanceof ProxyConnectException) {
      // The caller has its connection; the proxy failed later.
      return Fault.Kind.CONNECTION_RESET;
    }
    if (failure instanceof ConnectException || failure instanceof NoRouteToHostException) {
      return Fault.Kind.CONNECTION_REFUSED;
    }
    if (failure instanceof TimeoutException) {
      return Fault.Kind.NO_RESPONSE;
    }
    if (failure instanceof ClosedEarly) {
      return Fault.Kind.CONNECTION_CLOSED;
    }
    return failure instanceof SSLException ? ofHandshake(failure) : Fault.Kind.CONNECTION_RESET;
  }

  private static Fault.Kind ofHandshake(Throwable failure) {
    for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
      if (cause instanceof CertificateExpiredException) {
        return Fault.Kind.EXPIRED_CERTIFICATE;
      }
      if (cause instanceof CertificateNotYetValidException) {
        return Fault.Kind.NOT_YET_VALID_CERTIFICATE;
      }
      if (cause instanceof CertPathBuilderException) {
        return Fault.Kind.UNTRUSTED_AUTHORITY;
      }
      if (cause instanceof CertificateException && cause.getCause() == null) {
        return Fault.Kind.WRONG_HOST_CERTIFICATE;
      }
    }
    return Fault.Kind.HANDSHAKE_REFUSED;
  }
}
