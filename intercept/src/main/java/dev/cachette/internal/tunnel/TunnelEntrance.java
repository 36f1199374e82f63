// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.internal.agent.InterceptionBypass;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;

/** Accepts the connections to one destination, each on a thread of its own. */
final class TunnelEntrance implements AutoCloseable {

  private static final int BACKLOG = 128;

  private final ServerSocket accepting;
  private final InetSocketAddress destination;
  private final RecorderProxy recorder;

  private TunnelEntrance(
      ServerSocket accepting, InetSocketAddress destination, RecorderProxy recorder) {
    this.accepting = accepting;
    this.destination = destination;
    this.recorder = recorder;
  }

  static TunnelEntrance open(InetSocketAddress destination, RecorderProxy recorder)
      throws IOException {
    ServerSocket accepting = new ServerSocket(0, BACKLOG, InetAddress.getLoopbackAddress());
    TunnelEntrance opened = new TunnelEntrance(accepting, destination, recorder);
    start("cachette-tunnel " + destination, opened::accept);
    return opened;
  }

  InetSocketAddress address() {
    return new InetSocketAddress(accepting.getInetAddress(), accepting.getLocalPort());
  }

  private void accept() {
    while (!accepting.isClosed()) {
      try {
        Socket client = accepting.accept();
        Tunnel tunnel = new Tunnel(client, destination, recorder);
        start("cachette-tunnel", () -> run(tunnel));
      } catch (IOException closed) {
        // The loop ends if this socket is closed.
      }
    }
  }

  private static void run(Tunnel tunnel) {
    try {
      InterceptionBypass.through(
          () -> {
            tunnel.run();
            return true;
          });
    } catch (IOException broken) {
      // Both ends are closed: each side sees that the other is gone.
    }
  }

  /** Starts a thread that inherits nothing from the application, and does not keep it running. */
  static Thread start(String name, Runnable task) {
    Thread thread = new Thread(null, task, name, 0, false);
    thread.setDaemon(true);
    thread.start();
    return thread;
  }

  @Override
  public void close() throws IOException {
    accepting.close();
  }
}
