// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.internal.engine.Responder;
import dev.cachette.internal.tls.ServerTls;
import io.netty.channel.Channel;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiFunction;

/**
 * The state that all connections of a server share.
 *
 * @param responder answers the requests
 * @param encounters decides what happens before there is a request
 * @param tls the server side of TLS
 * @param workers run slow code
 * @param transmissions the replies that are being sent
 * @param maxRequestBody the maximum size of a request body in memory, in bytes
 * @param bodies the bytes of request bodies that are still arriving
 * @param clients knows the clients in this JVM
 * @param readConnections returns the connections to a host and port that their clients read when
 *     they are idle
 */
record Site(
    Responder responder,
    HandshakePolicy encounters,
    ServerTls tls,
    Workers workers,
    Transmissions transmissions,
    int maxRequestBody,
    AtomicLong bodies,
    AtomicReference<ClientHooks> clients,
    BiFunction<String, Integer, List<Channel>> readConnections) {

  /** The maximum of {@link #bodies}: a quarter of the memory. */
  static final long MOST_IN_BODIES = Runtime.getRuntime().maxMemory() / 4;
}
