package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import dev.cachette.internal.tls.ServerTls;

/**
 * What every connection of a server shares.
 *
 * @param responder answers the requests
 * @param encounters says what a connection meets before there is a request
 * @param tls the server's side of TLS
 * @param workers run what takes its time
 * @param transmissions the replies that are being sent
 * @param maxRequestBody how many bytes of a request's body are held in memory at most
 */
record Site(
    Responder responder,
    Encounters encounters,
    ServerTls tls,
    Workers workers,
    Transmissions transmissions,
    int maxRequestBody) {}
