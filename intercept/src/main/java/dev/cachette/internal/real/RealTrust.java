// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.CertPathBuilderException;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.Collection;
import java.util.List;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509ExtendedTrustManager;
import org.jspecify.annotations.Nullable;

/**
 * Which certificates of real services are trusted: those that the JVM trusts, and those signed by
 * more certificate authorities.
 */
public final class RealTrust {

  private RealTrust() {}

  /**
   * Reads a file with certificates in PEM format.
   *
   * @throws IllegalArgumentException if it cannot be read, or has none
   */
  public static List<X509Certificate> read(Path file) {
    try (InputStream in = Files.newInputStream(file)) {
      Collection<? extends Certificate> read =
          CertificateFactory.getInstance("X.509").generateCertificates(in);
      if (read.isEmpty()) {
        throw unusable(file, "has no certificate", null);
      }
      return read.stream().map(X509Certificate.class::cast).toList();
    } catch (NoSuchFileException missing) {
      throw unusable(file, "does not exist", missing);
    } catch (IOException | CertificateException malformed) {
      throw unusable(file, "has no certificate: " + malformed.getMessage(), malformed);
    }
  }

  private static IllegalArgumentException unusable(
      Path file, String problem, @Nullable Exception cause) {
    return new IllegalArgumentException(
        "The file of trusted certificates "
            + file
            + " "
            + problem
            + ". Fix: name a PEM file, with -----BEGIN CERTIFICATE-----.",
        cause);
  }

  /** Returns a context that trusts these authorities, too. */
  static SSLContext context(List<X509Certificate> authorities) {
    try {
      if (authorities.isEmpty()) {
        return SSLContext.getDefault();
      }
      KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
      store.load(null, null);
      for (X509Certificate authority : authorities) {
        store.setCertificateEntry("authority-" + store.size(), authority);
      }
      SSLContext context = SSLContext.getInstance("TLS");
      TrustManager either = new Either(manager(null), manager(store));
      context.init(null, new TrustManager[] {either}, null);
      return context;
    } catch (GeneralSecurityException | IOException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  private static X509ExtendedTrustManager manager(@Nullable KeyStore store)
      throws GeneralSecurityException {
    TrustManagerFactory factory =
        TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
    factory.init(store);
    return (X509ExtendedTrustManager) factory.getTrustManagers()[0];
  }

  /** Trusts what one of two trusts; both check the host name. */
  private static final class Either extends X509ExtendedTrustManager {

    private final X509ExtendedTrustManager ofJvm;
    private final X509ExtendedTrustManager more;

    Either(X509ExtendedTrustManager ofJvm, X509ExtendedTrustManager more) {
      this.ofJvm = ofJvm;
      this.more = more;
    }

    /** Checks with one trust manager. */
    private interface Checking {
      void by(X509ExtendedTrustManager manager) throws CertificateException;
    }

    private void check(Checking check) throws CertificateException {
      try {
        check.by(more);
      } catch (CertificateException notByThese) {
        try {
          check.by(ofJvm);
        } catch (CertificateException notByJvm) {
          // The one that found a trusted authority knows what else is wrong.
          throw isUntrusted(notByThese) ? notByJvm : notByThese;
        }
      }
    }

    private static boolean isUntrusted(Throwable failure) {
      return failure instanceof CertPathBuilderException
          || failure.getCause() != null && isUntrusted(failure.getCause());
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine)
        throws CertificateException {
      check(manager -> manager.checkServerTrusted(chain, type, engine));
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket)
        throws CertificateException {
      check(manager -> manager.checkServerTrusted(chain, type, socket));
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type)
        throws CertificateException {
      check(manager -> manager.checkServerTrusted(chain, type));
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine)
        throws CertificateException {
      ofJvm.checkClientTrusted(chain, type, engine);
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket)
        throws CertificateException {
      ofJvm.checkClientTrusted(chain, type, socket);
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type)
        throws CertificateException {
      ofJvm.checkClientTrusted(chain, type);
    }

    @Override
    public X509Certificate[] getAcceptedIssuers() {
      return more.getAcceptedIssuers();
    }
  }
}
