// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.util.concurrent.Callable;

/** Calls for which a client has a connection that has just ended. */
final class KeptConnections {

  private static final int MOST_KEPT = 4;

  private KeptConnections() {}

  /** Returns what came of it; what must never be is an answer of the real service. */
  static String outcome(Callable<Reply> call) {
    Reply reply;
    try {
      reply = call.call();
    } catch (Exception failed) {
      return "its first call fails";
    }
    if (!reply.body().equals("stubbed")) {
      throw new AssertionError("went on by the old connection and got: " + reply.body());
    }
    return "takes a new one";
  }

  /**
   * Returns what a client gets where its kept connections have just been closed: it may take one of
   * them once more, and leave it to its caller to ask again.
   */
  static Reply getAtLast(HarbourClient client, String url) throws Exception {
    for (int attempt = 1; attempt < MOST_KEPT; attempt++) {
      try {
        return client.get(url);
      } catch (Exception stale) {
        // Asked again.
      }
    }
    return client.get(url);
  }
}
