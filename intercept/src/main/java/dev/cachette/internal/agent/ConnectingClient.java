// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.net.SocketImpl;
import java.nio.channels.SelectableChannel;

/**
 * The client that is making a connection.
 *
 * @param socket what it connects with: a socket or channel of the JDK, or a context of Netty
 */
public record ConnectingClient(Object socket) {

  /** Returns true if the client reads the connection only while it waits for a response. */
  public boolean isBlocking() {
    return socket instanceof SocketImpl
        || socket instanceof SelectableChannel channel && channel.isBlocking();
  }

  /** Returns true for {@code java.net.http.HttpClient}; expensive. */
  public boolean isOfJdk() {
    return SecondAttempt.isByJavaClient();
  }
}
