// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.answer.Fault;
import dev.cachette.internal.tls.Flaw;
import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandler;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.handler.ssl.SslHandler;
import io.netty.util.ReferenceCountUtil;
import java.util.Optional;
import javax.net.ssl.SSLEngine;

/** The first handlers of a TLS connection. */
final class Handshakes {

  private static final String HTTP_2 = "h2";
  private static final String HTTP_1_1 = "http/1.1";

  /** A record with the fatal alert 40, handshake_failure (RFC 8446 section 6). */
  private static final byte[] REFUSAL = {21, 3, 3, 0, 2, 2, 40};

  private Handshakes() {}

  static ChannelHandler[] handlers(Destination destination, Site site, Optional<Fault> fault) {
    Fault.Kind kind = fault.map(Fault::kind).orElse(null);
    if (kind == Fault.Kind.HANDSHAKE_REFUSED) {
      return new ChannelHandler[] {new Raw(REFUSAL, true)};
    }
    if (kind == Fault.Kind.OUTDATED_TLS) {
      return new ChannelHandler[] {new Raw(oldServerHello(), false)};
    }
    String[] protocols =
        destination.prefersHttp1() || site.clients().get().prefersHttp1()
            ? new String[] {HTTP_1_1, HTTP_2}
            : new String[] {HTTP_2, HTTP_1_1};
    SSLEngine engine =
        site.tls().engineFor(destination.host(), destination.port(), flaw(kind), protocols);
    return new ChannelHandler[] {
      new SslHandler(engine), new AfterHandshake(destination, site, kind != null)
    };
  }

  private static Flaw flaw(Fault.Kind kind) {
    if (kind == null) {
      return Flaw.NONE;
    }
    return switch (kind) {
      case EXPIRED_CERTIFICATE -> Flaw.EXPIRED;
      case NOT_YET_VALID_CERTIFICATE -> Flaw.NOT_YET_VALID;
      case WRONG_HOST_CERTIFICATE -> Flaw.WRONG_HOST;
      case UNTRUSTED_AUTHORITY -> Flaw.UNTRUSTED;
      default -> throw new IllegalArgumentException(kind + " is no fault of certificates");
    };
  }

  /**
   * Returns a record with a ServerHello that selects TLS 1.0 and an old cipher suite (RFC 2246
   * section 7.4.1.3), which current clients reject.
   */
  private static byte[] oldServerHello() {
    byte[] hello = new byte[5 + 4 + 38];
    byte[] head = {22, 3, 1, 0, 42, 2, 0, 0, 38, 3, 1};
    System.arraycopy(head, 0, hello, 0, head.length);
    int cipherSuite = head.length + 32 + 1;
    // TLS_ECDHE_RSA_WITH_AES_128_CBC_SHA: old, but still offered by clients.
    hello[cipherSuite] = (byte) 0xc0;
    hello[cipherSuite + 1] = 0x13;
    return hello;
  }

  private static boolean spokeHttp2(ChannelHandlerContext context) {
    SslHandler tls = context.pipeline().get(SslHandler.class);
    return tls != null && HTTP_2.equals(tls.engine().getApplicationProtocol());
  }

  /** Adds the negotiated protocol. */
  private static final class AfterHandshake extends HandshakeReport {

    private final Destination destination;
    private final Site site;

    AfterHandshake(Destination destination, Site site, boolean meantToFail) {
      super(destination, site.responder(), meantToFail);
      this.destination = destination;
      this.site = site;
    }

    @Override
    void succeeded(ChannelHandlerContext context) {
      Channel connection = context.channel();
      connection.closeFuture().addListener(closed -> noteIfSilent(connection));
      if (spokeHttp2(context)) {
        Http2Streams.addTo(context.pipeline(), destination, true, site);
      } else {
        HttpPipeline.addHttp1(context.pipeline(), destination, true, site);
      }
    }

    /** A client that does not trust the certificate may close without a TLS alert. */
    private void noteIfSilent(Channel connection) {
      if (!meantToFail()
          && !Peer.isRequested(connection)
          && connection.pipeline().get(LingeringClose.class) == null) {
        site.responder().closedWithoutRequest(destination.toString());
      }
    }
  }

  /** Answers a ClientHello with given bytes. */
  private static final class Raw extends ChannelInboundHandlerAdapter {

    private final byte[] answer;
    private final boolean thenClose;
    private boolean answered;

    Raw(byte[] answer, boolean thenClose) {
      this.answer = answer;
      this.thenClose = thenClose;
    }

    @Override
    public void channelRead(ChannelHandlerContext context, Object bytes) {
      ReferenceCountUtil.release(bytes);
      if (answered) {
        // The client's alert.
        context.close();
        return;
      }
      answered = true;
      var written = context.writeAndFlush(Unpooled.wrappedBuffer(answer));
      if (thenClose) {
        written.addListener(result -> LingeringClose.begin(context.channel()));
      }
    }

    @Override
    public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
      context.close();
    }
  }
}
