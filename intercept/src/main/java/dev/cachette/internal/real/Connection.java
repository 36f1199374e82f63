// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.internal.uri.Hosts;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http.HttpClientCodec;
import io.netty.handler.codec.http2.Http2FrameCodecBuilder;
import io.netty.handler.codec.http2.Http2MultiplexHandler;
import io.netty.handler.codec.http2.Http2StreamChannelBootstrap;
import io.netty.handler.codec.http2.Http2StreamFrameToHttpObjectCodec;
import io.netty.handler.proxy.ProxyHandler;
import io.netty.handler.ssl.SslHandler;
import io.netty.handler.ssl.SslHandshakeCompletionEvent;
import java.util.List;
import javax.net.ssl.SNIHostName;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLParameters;
import org.jspecify.annotations.Nullable;

/**
 * The handlers of a connection for one call: a tunnel through a proxy, TLS, and the negotiated HTTP
 * version, each added when the previous one is done.
 */
final class Connection extends ChannelInitializer<Channel> {

  private static final String HTTP2 = "h2";

  private final OneCall call;
  private final Route route;
  private final @Nullable ProxyHandler tunnel;
  private final SSLContext trust;
  private final boolean http2;
  private final ArrivingResponse response;

  /**
   * Creates the connection of a call.
   *
   * @param tunnel requests a tunnel from the proxy; null without one
   * @param trust verifies the service's certificate
   * @param http2 whether to use HTTP/2, if the service supports it
   */
  Connection(
      OneCall call,
      Route route,
      @Nullable ProxyHandler tunnel,
      SSLContext trust,
      boolean http2,
      ArrivingResponse response) {
    this.call = call;
    this.route = route;
    this.tunnel = tunnel;
    this.trust = trust;
    this.http2 = http2;
    this.response = response;
  }

  @Override
  protected void initChannel(Channel channel) {
    ChannelPipeline pipeline = channel.pipeline();
    if (tunnel != null) {
      pipeline.addLast(tunnel);
      tunnel
          .connectFuture()
          .addListener(
              made -> {
                if (!made.isSuccess()) {
                  response.fail(made.cause());
                }
              });
    }
    if (route.isSecure()) {
      secure(pipeline);
    } else if (http2 && isSpokenInClear()) {
      speakHttp2(pipeline);
    } else {
      speakHttp1(pipeline);
    }
  }

  @Override
  public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
    response.fail(cause);
    context.close();
  }

  /** Without TLS there is no negotiation, so the caller must have known the version. */
  private boolean isSpokenInClear() {
    return call.request().uri().scheme().equals("http") && route.proxyOfEachCall().isEmpty();
  }

  private void secure(ChannelPipeline pipeline) {
    SSLEngine tls = trust.createSSLEngine(route.named().host(), route.target().port());
    tls.setUseClientMode(true);
    SSLParameters parameters = tls.getSSLParameters();
    if (!Hosts.isAddress(route.named().host())) {
      // By default, Java sends no name without a dot.
      parameters.setServerNames(List.of(new SNIHostName(route.named().host())));
    }
    parameters.setEndpointIdentificationAlgorithm("HTTPS");
    if (http2) {
      parameters.setApplicationProtocols(new String[] {HTTP2, "http/1.1"});
    }
    tls.setSSLParameters(parameters);
    pipeline.addLast(new SslHandler(tls));
    pipeline.addLast(new Negotiated(tls));
  }

  private void speakHttp1(ChannelPipeline pipeline) {
    pipeline.addLast(new HttpClientCodec());
    pipeline.addLast(call);
  }

  private void speakHttp2(ChannelPipeline pipeline) {
    pipeline.addLast(Http2FrameCodecBuilder.forClient().gracefulShutdownTimeoutMillis(0).build());
    pipeline.addLast(new Http2MultiplexHandler(new ChannelInboundHandlerAdapter()));
    Channel connection = pipeline.channel();
    if (connection.isActive()) {
      openStream(connection);
    } else {
      pipeline.addLast(new WhenActive());
    }
  }

  private void openStream(Channel connection) {
    connection
        .closeFuture()
        .addListener(closed -> response.fail(new ClosedEarly(call.request().uri().origin())));
    new Http2StreamChannelBootstrap(connection)
        .handler(
            new ChannelInitializer<>() {
              @Override
              protected void initChannel(Channel stream) {
                stream.pipeline().addLast(new Http2StreamFrameToHttpObjectCodec(false));
                stream.pipeline().addLast(call.onStream());
              }
            })
        .open()
        .addListener(
            opened -> {
              if (!opened.isSuccess()) {
                response.fail(opened.cause());
              }
            });
    response.whole().whenComplete((got, failed) -> connection.close());
  }

  /** Opens the stream when there is a connection. */
  private final class WhenActive extends ChannelInboundHandlerAdapter {

    @Override
    public void channelActive(ChannelHandlerContext context) {
      openStream(context.channel());
      context.fireChannelActive();
    }
  }

  /** Continues when the handshake has determined the version. */
  private final class Negotiated extends ChannelInboundHandlerAdapter {

    private final SSLEngine tls;

    Negotiated(SSLEngine tls) {
      this.tls = tls;
    }

    @Override
    public void userEventTriggered(ChannelHandlerContext context, Object event) {
      if (event instanceof SslHandshakeCompletionEvent handshake) {
        if (!handshake.isSuccess()) {
          response.fail(handshake.cause());
          context.close();
          return;
        }
        context.pipeline().remove(this);
        if (HTTP2.equals(tls.getApplicationProtocol())) {
          speakHttp2(context.pipeline());
        } else {
          speakHttp1(context.pipeline());
        }
      }
    }

    @Override
    public void channelInactive(ChannelHandlerContext context) {
      response.fail(new ClosedEarly(call.request().uri().origin()));
    }

    @Override
    public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
      response.fail(cause);
      context.close();
    }
  }
}
