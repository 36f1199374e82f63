// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.internal.engine.Responder;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.ssl.SslHandshakeCompletionEvent;
import java.security.GeneralSecurityException;
import javax.net.ssl.SSLException;

/**
 * Waits for the end of a TLS handshake, and reports one that the client aborted, which the code
 * under test may not.
 */
abstract class HandshakeReport extends ChannelInboundHandlerAdapter {

  private final Destination destination;
  private final Responder responder;
  private final boolean meantToFail;

  HandshakeReport(Destination destination, Responder responder, boolean meantToFail) {
    this.destination = destination;
    this.responder = responder;
    this.meantToFail = meantToFail;
  }

  final boolean meantToFail() {
    return meantToFail;
  }

  /** Adds the next handlers after the handshake. */
  abstract void succeeded(ChannelHandlerContext context);

  @Override
  public void userEventTriggered(ChannelHandlerContext context, Object event) {
    if (event instanceof SslHandshakeCompletionEvent handshake) {
      if (handshake.isSuccess()) {
        succeeded(context);
        context.pipeline().remove(this);
      } else {
        note(handshake.cause());
      }
    }
    context.fireUserEventTriggered(event);
  }

  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    context.close();
  }

  /** The client sent no TLS error, or a plaintext close_notify instead of an encrypted one. */
  private static boolean isOfAClientThatWentAway(Throwable cause) {
    return !(cause instanceof SSLException)
        || cause.getMessage() == null
        || cause.getCause() instanceof GeneralSecurityException;
  }

  private void note(Throwable cause) {
    if (meantToFail || isOfAClientThatWentAway(cause)) {
      return;
    }
    responder.refused(
        "TLS handshake with " + destination,
        String.format(
            "The TLS handshake with %s failed: %s\n\n%s",
            destination, cause.getMessage(), HandshakeCause.of(cause.getMessage()).text()));
  }
}
