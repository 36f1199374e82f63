package dev.cachette.internal.wire;

import dev.cachette.answer.Trouble;
import dev.cachette.internal.stub.Reply;
import java.util.Optional;

/** What cannot be done to a call, by the protocol that it came by. */
final class Impossible {

  private Impossible() {}

  static Optional<String> reason(Reply reply, Peer peer) {
    boolean needsStreams =
        reply
            .trouble()
            .map(Trouble::kind)
            .filter(kind -> kind == Trouble.Kind.STREAM_RESET || kind == Trouble.Kind.GO_AWAY)
            .isPresent();
    return needsStreams && !peer.isHttp2()
        ? Optional.of(
            String.format(
                "\"%s\" is trouble of HTTP/2, and the call came by HTTP/1.1. "
                    + "Mend: connectionReset(), or let the client speak HTTP/2.",
                reply.trouble().get()))
        : Optional.empty();
  }
}
