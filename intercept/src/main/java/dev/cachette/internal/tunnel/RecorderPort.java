// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.Socket;

/** A port of this machine where a recorder may listen. */
final class RecorderPort {

  private RecorderPort() {}

  /**
   * Connects to it.
   *
   * @throws ConnectException if nobody listens there
   */
  static Socket connect(int port) throws IOException {
    Socket connection = new Socket(InetAddress.getLoopbackAddress(), port);
    if (connection.getLocalPort() == port) {
      // TCP connects a socket to itself if the system gives it the port that it calls; while it is
      // open, no recorder can listen there.
      connection.close();
      throw new ConnectException("no recorder listens at port " + port);
    }
    return connection;
  }
}
