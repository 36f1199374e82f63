// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.answer.Fault;
import dev.cachette.internal.agent.Attribution;
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
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A JVM whose connections are led to a recorder. Interception begins with {@link #begin} and lasts
 * as long as the JVM.
 */
public final class TunnelledJvm implements Destinations {

  /** The number of what the application does by itself, such as at its start, or by a timer. */
  public static final long BACKGROUND = Long.MAX_VALUE;

  private final RecorderProxy recorder;

  /** By host and port. */
  private final Map<InetSocketAddress, TunnelEntrance> entrances = new ConcurrentHashMap<>();

  private TunnelledJvm(RecorderProxy recorder) {
    this.recorder = recorder;
  }

  /**
   * Begins to lead calls of this JVM to the recorder.
   *
   * @param arguments the jar of Cachette; the recorder's port on this machine; the file with the
   *     certificate of its authority; the port where it asks who made a call, 0 if it does not; and
   *     whether calls go directly to their services while there is no recorder
   */
  public static void begin(String... arguments) throws IOException {
    Attribution attribution = Attribution.install();
    RecorderProxy proxy =
        new RecorderProxy(
            Integer.parseInt(arguments[1]),
            Boolean.parseBoolean(arguments[4]),
            attribution::answered);
    PublicKey authority = key(Path.of(arguments[2]));
    Interception.begin(
        "the recorder of cachette",
        new TunnelledJvm(proxy),
        (chain, host, connection) -> isSigned(chain[0], authority));
    int questions = Integer.parseInt(arguments[3]);
    if (questions > 0) {
      attribution.handOver(BACKGROUND);
      new CallerAnswers(questions, proxy, attribution).start();
    }
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
    return !recorder.isAt(port);
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
  public Instant now() {
    return Instant.now();
  }

  @Override
  public ConnectException refuseHttp3(String host, int port) {
    return new ConnectException("cachette does not record HTTP/3; use HTTP/2 or HTTP/1.1");
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
