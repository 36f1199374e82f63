package dev.cachette.internal.real;

import dev.cachette.answer.Trouble;
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

/** What a failure to reach a real service is called. */
final class Failures {

  private Failures() {}

  static Trouble.Kind kindOf(Throwable failure) {
    if (failure instanceof UnknownHostException) {
      return Trouble.Kind.UNKNOWN_HOST;
    }
    if (failure instanceof ConnectTimeoutException) {
      return Trouble.Kind.CONNECT_TIMEOUT;
    }
    if (failure instanceof ProxyConnectException) {
      // The caller has its connection; what it wanted of it the proxy did not give.
      return Trouble.Kind.CONNECTION_RESET;
    }
    if (failure instanceof ConnectException || failure instanceof NoRouteToHostException) {
      return Trouble.Kind.CONNECTION_REFUSED;
    }
    if (failure instanceof TimeoutException) {
      return Trouble.Kind.SILENCE;
    }
    if (failure instanceof ClosedEarly) {
      return Trouble.Kind.CONNECTION_CLOSED;
    }
    return failure instanceof SSLException ? ofHandshake(failure) : Trouble.Kind.CONNECTION_RESET;
  }

  private static Trouble.Kind ofHandshake(Throwable failure) {
    for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
      if (cause instanceof CertificateExpiredException) {
        return Trouble.Kind.EXPIRED_CERTIFICATE;
      }
      if (cause instanceof CertificateNotYetValidException) {
        return Trouble.Kind.NOT_YET_VALID_CERTIFICATE;
      }
      if (cause instanceof CertPathBuilderException) {
        return Trouble.Kind.UNTRUSTED_AUTHORITY;
      }
      if (cause instanceof CertificateException && cause.getCause() == null) {
        return Trouble.Kind.WRONG_HOST_CERTIFICATE;
      }
    }
    return Trouble.Kind.HANDSHAKE_REFUSED;
  }
}
