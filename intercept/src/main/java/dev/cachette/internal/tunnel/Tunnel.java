// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;

/**
 * One connection of the application. Its first bytes decide: TLS and HTTP go through the recorder's
 * proxy (CONNECT, RFC 9110 section 9.3.6), everything else directly to its destination, such as a
 * protocol of a database.
 */
final class Tunnel {

  /** A client that says nothing for this long waits for its server, which HTTP clients never do. */
  private static final int SILENCE_MILLIS = 500;

  private static final long IDLE_NANOS = TimeUnit.MILLISECONDS.toNanos(50);
  private static final int ENOUGH = 20;
  private static final int BUFFER = 16 * 1024;
  private static final int TLS_HANDSHAKE = 0x16;
  private static final Pattern HTTP = Pattern.compile("[A-Z]{3,16} .*", Pattern.DOTALL);
  private static final Pattern MAYBE_HTTP = Pattern.compile("[A-Z]{0,16}");

  private final Socket client;
  private final InetSocketAddress destination;
  private final RecorderProxy recorder;
  private boolean ended;

  /** True if what came last was from the service. */
  private volatile boolean isAnswered;

  private volatile long lastNanos;

  Tunnel(Socket client, InetSocketAddress destination, RecorderProxy recorder) {
    this.client = client;
    this.destination = destination;
    this.recorder = recorder;
  }

  /** Carries bytes in both directions until both have ended. */
  void run() throws IOException {
    try (client) {
      byte[] first = firstBytes();
      Socket service = isForRecorder(first) ? throughRecorder() : direct();
      try {
        service.setTcpNoDelay(true);
        client.setTcpNoDelay(true);
        service.getOutputStream().write(first);
        TunnelEntrance.start("cachette-tunnel", () -> carryBack(service));
        carry(client, service, false);
        awaitEnd(service);
      } finally {
        recorder.close(service, this);
      }
    }
  }

  private byte[] firstBytes() throws IOException {
    byte[] first = new byte[ENOUGH];
    int count = 0;
    client.setSoTimeout(SILENCE_MILLIS);
    try {
      while (count == 0 || isUndecided(Arrays.copyOf(first, count))) {
        int read = client.getInputStream().read(first, count, first.length - count);
        if (read < 0) {
          break;
        }
        count += read;
      }
    } catch (SocketTimeoutException silent) {
      // The server speaks first.
    }
    client.setSoTimeout(0);
    return Arrays.copyOf(first, count);
  }

  private static boolean isUndecided(byte[] first) {
    return first.length < ENOUGH && MAYBE_HTTP.matcher(text(first)).matches();
  }

  private static boolean isForRecorder(byte[] first) {
    return first.length > 0 && (first[0] == TLS_HANDSHAKE || HTTP.matcher(text(first)).matches());
  }

  private static String text(byte[] bytes) {
    return new String(bytes, StandardCharsets.ISO_8859_1);
  }

  private Socket throughRecorder() throws IOException {
    Optional<Socket> tunnel = recorder.connect(destination, client.getPort());
    if (tunnel.isPresent()) {
      return tunnel.get();
    }
    recorder.passedBy(this);
    return direct();
  }

  private Socket direct() throws IOException {
    return new Socket(InetAddress.getByName(destination.getHostString()), destination.getPort());
  }

  private void carryBack(Socket service) {
    try {
      carry(service, client, true);
    } catch (IOException broken) {
      reset();
    } finally {
      synchronized (this) {
        ended = true;
        notifyAll();
      }
    }
  }

  private synchronized void awaitEnd(Socket service) throws IOException {
    try {
      while (!ended) {
        wait();
      }
    } catch (InterruptedException stopped) {
      service.close();
      Thread.currentThread().interrupt();
    }
  }

  /** The client gets what its service did: a reset connection, not one that is closed in order. */
  private void reset() {
    try {
      client.setSoLinger(true, 0);
      client.close();
    } catch (IOException closed) {
      // It is what was wanted.
    }
  }

  private void carry(Socket from, Socket to, boolean isOfService) throws IOException {
    InputStream in = from.getInputStream();
    OutputStream out = to.getOutputStream();
    byte[] buffer = new byte[BUFFER];
    for (int count = in.read(buffer); count >= 0; count = in.read(buffer)) {
      if (isOfService) {
        // Before the client can make its next request.
        recorder.answered(client.getPort());
      }
      isAnswered = isOfService;
      lastNanos = System.nanoTime();
      out.write(buffer, 0, count);
    }
    to.shutdownOutput();
  }

  /** Closes the connection if its client waits for nothing, so that it makes another one. */
  void endIfIdle() {
    if (isAnswered && System.nanoTime() - lastNanos > IDLE_NANOS) {
      try {
        client.close();
      } catch (IOException closed) {
        // It is what was wanted.
      }
    }
  }
}
