// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.answer.Fault;
import dev.cachette.internal.agent.ConnectingClient;
import dev.cachette.internal.agent.Destinations;
import dev.cachette.internal.agent.Interception;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.PublicKey;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A JVM whose connections are led to a recorder. Interception begins with {@link #begin} and lasts
 * as long as the JVM.
 */
public final class TunnelledJvm implements Destinations {

  private final int recorder;

  /** By host and port. */
  private final Map<InetSocketAddress, TunnelEntrance> entrances = new ConcurrentHashMap<>();

  private TunnelledJvm(int recorder) {
    this.recorder = recorder;
  }

  /**
   * Begins to lead calls of this JVM to the recorder.
   *
   * @param port the recorder's port on this machine
   * @param certificate the file with the certificate of its authority
   */
  public static void begin(String port, String certificate) throws IOException {
    PublicKey authority = key(Path.of(certificate));
    Interception.begin(
        "cachette record",
        new TunnelledJvm(Integer.parseInt(port)),
        (chain, host, connection) -> isSigned(chain[0], authority));
  }

  private static PublicKey key(Path certificate) throws IOException {
    try (InputStream in = Files.newInputStream(certificate)) {
      return CertificateFactory.getInstance("X.509").generateCertificate(in).getPublicKey();
    } catch (CertificateException malformed) {
      throw new IOException(certificate + " has no certificate", malformed);
    }
  }

  private static boolean isSigned(X509Certificate certificate, PublicKey authority)
      throws CertificateException {
    try {
      certificate.verify(authority);
      certificate.checkValidity();
      return true;
    } catch (CertificateException invalid) {
      throw invalid;
    } catch (GeneralSecurityException ofAnother) {
      return false;
    }
  }

  /** Services on this machine are recorded, too. */
  @Override
  public boolean wantsLocal(String host, int port) {
    return port != recorder;
  }

  @Override
  public boolean letsThrough(String host, OptionalInt port) {
    return false;
  }

  @Override
  public Runnable connectsThrough(String host, int port, String yet) {
    throw new IllegalStateException("nothing is let through");
  }

  @Override
  public Optional<Fault> meet(Fault.Stage stage, String host, OptionalInt port) {
    return Optional.empty();
  }

  @Override
  public ConnectException refuseHttp3(String host, int port) {
    return new ConnectException("cachette record does not record HTTP/3; use HTTP/2 or HTTP/1.1");
  }

  @Override
  public InetSocketAddress listenerFor(String host, int port, ConnectingClient client)
      throws IOException {
    InetSocketAddress destination = InetSocketAddress.createUnresolved(host, port);
    TunnelEntrance known = entrances.get(destination);
    if (known == null) {
      TunnelEntrance opened = TunnelEntrance.open(destination, recorder);
      known = entrances.putIfAbsent(destination, opened);
      if (known == null) {
        return opened.address();
      }
      opened.close();
    }
    return known.address();
  }
}
