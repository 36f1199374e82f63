// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.answer.Fault;
import dev.cachette.internal.engine.Reply;
import java.util.Optional;

/** Faults that are impossible with the protocol of a call. */
final class Impossible {

  private Impossible() {}

  static Optional<String> reason(Reply reply, Peer peer) {
    boolean needsStreams =
        reply
            .fault()
            .map(Fault::kind)
            .filter(kind -> kind == Fault.Kind.STREAM_RESET || kind == Fault.Kind.GO_AWAY)
            .isPresent();
    return needsStreams && !peer.isHttp2()
        ? Optional.of(
            String.format(
                "\"%s\" is an HTTP/2 fault, but the call came over HTTP/1.1. Fix: use"
                    + " connectionReset(), or let the client use HTTP/2.",
                reply.fault().get()))
        : Optional.empty();
  }
}
