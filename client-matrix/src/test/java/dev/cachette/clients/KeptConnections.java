package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.util.concurrent.Callable;

/** What becomes of a call for which a client has a connection that has just ended. */
final class KeptConnections {

  private KeptConnections() {}

  /** What came of it; what must never be is an answer of the real service. */
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
}
