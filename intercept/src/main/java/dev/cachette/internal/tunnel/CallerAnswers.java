// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.agent.Attribution.Attributed;
import dev.cachette.internal.agent.InterceptionBypass;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/**
 * Answers a recorder in another process which incoming call of this JVM has made an outgoing one.
 * It connects to the recorder, again and again, and answers its questions; see {@link
 * CallerQuestions}.
 */
final class CallerAnswers {

  private static final long PAUSE_MILLIS = 200;

  /** It ends with the JVM. */
  private final CountDownLatch never = new CountDownLatch(1);

  private final int port;
  private final RecorderProxy proxy;
  private final Attribution attribution;

  CallerAnswers(int port, RecorderProxy proxy, Attribution attribution) {
    this.port = port;
    this.proxy = proxy;
    this.attribution = attribution;
  }

  /** Connects now, if there is a recorder, and whenever there is one later. */
  void start() {
    Optional<Socket> first = connected();
    TunnelEntrance.start("cachette-callers", () -> answerAlways(first));
  }

  private Optional<Socket> connected() {
    try {
      return Optional.of(
          InterceptionBypass.through(
              () -> {
                Socket connection = RecorderPort.connect(port);
                connection.setTcpNoDelay(true);
                return connection;
              }));
    } catch (IOException absent) {
      return Optional.empty();
    }
  }

  private void answerAlways(Optional<Socket> first) {
    Optional<Socket> connection = first;
    try {
      do {
        connection.ifPresent(this::answer);
        connection = connected();
      } while (connection.isPresent() || !never.await(PAUSE_MILLIS, TimeUnit.MILLISECONDS));
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
  }

  /** Answers questions until the recorder leaves. */
  private void answer(Socket connection) {
    TunnelEntrance.start("cachette-callers", () -> endPassedBy(connection));
    try (connection) {
      DataInputStream in = new DataInputStream(connection.getInputStream());
      DataOutputStream out = new DataOutputStream(connection.getOutputStream());
      while (true) {
        CallerQuestions.answer(in, out, this);
      }
    } catch (IOException left) {
      // It may come back.
    }
  }

  private void endPassedBy(Socket connection) {
    try {
      while (!connection.isClosed() && !proxy.endPassedBy()) {
        never.await(PAUSE_MILLIS, TimeUnit.MILLISECONDS);
      }
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
  }

  /** Returns who made the request that is on a tunnel now. */
  Optional<Attributed> at(int tunnel, int stream) {
    OptionalInt client = proxy.clientOf(tunnel);
    if (client.isEmpty()) {
      return Optional.empty();
    }
    Optional<Attributed> maker = attribution.attributed(client.getAsInt(), stream);
    proxy.requested(client.getAsInt());
    return maker;
  }

  void carries(int remotePort, long call) {
    attribution.carries(remotePort, call);
  }
}
