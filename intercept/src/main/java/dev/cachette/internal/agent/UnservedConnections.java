// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

/** Connections that clients keep while nobody serves them, between two sessions. */
public final class UnservedConnections {

  private final HookHolder holder;

  UnservedConnections(HookHolder holder) {
    this.holder = holder;
  }

  /**
   * Nobody serves a connection until further notice.
   *
   * @param port the port of its client
   * @param end run once when the client uses it, before it does
   * @return false if that cannot be told, so that it must not be left unserved
   */
  public boolean leave(int port, Runnable end) {
    return holder.leave(port, end);
  }

  /** Returns true if the client has not used it yet; from now on it is served. */
  public boolean take(int port) {
    return holder.take(port);
  }
}
