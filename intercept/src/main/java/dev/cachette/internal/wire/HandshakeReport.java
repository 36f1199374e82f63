package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.ssl.SslHandshakeCompletionEvent;
import javax.net.ssl.SSLException;

/** Notes a TLS handshake that the client broke off, which the code under test may not tell. */
final class HandshakeReport extends ChannelInboundHandlerAdapter {

  private final Destination destination;
  private final Responder responder;

  HandshakeReport(Destination destination, Responder responder) {
    this.destination = destination;
    this.responder = responder;
  }

  @Override
  public void userEventTriggered(ChannelHandlerContext context, Object event) {
    if (event instanceof SslHandshakeCompletionEvent handshake) {
      context.pipeline().remove(this);
      // A client that only went away has no TLS error to show.
      if (handshake.cause() instanceof SSLException refused && refused.getMessage() != null) {
        responder.refused(
            "TLS handshake with " + destination,
            String.format(
                """
                The TLS handshake with %s failed: %s

                Likely cause: the client trusts less than the JVM does. Where it pins certificates
                or has a trust manager that refuses, it refuses what Cachette made for this host.

                Mend: leave pinning and the trust manager out of the client in this test.
                """,
                destination, refused.getMessage()));
      }
    }
    context.fireUserEventTriggered(event);
  }
}
