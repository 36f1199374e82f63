// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.net.URI;
import java.time.Duration;

/**
 * Lets clients time out before their time is over, as far as the hooks know their timers: those of
 * blocking sockets, and those of requests of {@code java.net.http.HttpClient}.
 */
public final class ClientTimers {

  private final HookHolder holder;

  ClientTimers(HookHolder holder) {
    this.holder = holder;
  }

  /**
   * Notes how much time has passed for a call. Its client times out if it waits no longer: at once,
   * or when it begins to read.
   *
   * @param port the port that it calls from
   * @return whether the client waits in a blocking read, which must be woken by a byte
   */
  public boolean pass(int port, String method, URI uri, Duration time) {
    return holder.pass(port, method, uri, time);
  }
}
