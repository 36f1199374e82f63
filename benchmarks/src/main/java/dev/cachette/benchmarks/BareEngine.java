// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import io.netty.bootstrap.ServerBootstrap;
import io.netty.buffer.Unpooled;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.ChannelPipeline;
import io.netty.channel.MultiThreadIoEventLoopGroup;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.channel.nio.NioIoHandler;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpServerCodec;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.handler.codec.http2.Http2FrameCodecBuilder;
import io.netty.handler.codec.http2.Http2MultiplexHandler;
import io.netty.handler.codec.http2.Http2StreamFrameToHttpObjectCodec;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** The HTTP engine without Cachette: its own defaults, the same bytes for every call. */
final class BareEngine implements AutoCloseable {

  private final MultiThreadIoEventLoopGroup group;
  private final Channel listener;

  /**
   * Starts a server with one thread.
   *
   * @param http2 whether to use HTTP/2 by prior knowledge, else HTTP/1.1
   */
  BareEngine(byte[] json, boolean http2) {
    this(json, http2, 1);
  }

  private BareEngine(byte[] json, boolean http2, int threads) {
    group = new MultiThreadIoEventLoopGroup(threads, NioIoHandler.newFactory());
    listener =
        new ServerBootstrap()
            .group(group)
            .channel(NioServerSocketChannel.class)
            .childOption(ChannelOption.TCP_NODELAY, true)
            .childHandler(
                new ChannelInitializer<>() {
                  @Override
                  protected void initChannel(Channel connection) {
                    if (http2) {
                      connection
                          .pipeline()
                          .addLast(Http2FrameCodecBuilder.forServer().build())
                          .addLast(new Http2MultiplexHandler(stream(json)));
                    } else {
                      connection.pipeline().addLast(new HttpServerCodec());
                      answering(connection.pipeline(), json);
                    }
                  }
                })
            .bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0))
            .syncUninterruptibly()
            .channel();
  }

  /**
   * Serves until it is killed.
   *
   * @param arguments the JSON for every call, a file for its address, and the number of threads
   */
  public static void main(String[] arguments) throws IOException, InterruptedException {
    BareEngine engine =
        new BareEngine(
            arguments[0].getBytes(StandardCharsets.UTF_8), false, Integer.parseInt(arguments[2]));
    Files.writeString(Path.of(arguments[1]), "serving at " + engine.url("") + "\n");
    engine.listener.closeFuture().sync();
  }

  private static ChannelInitializer<Channel> stream(byte[] json) {
    return new ChannelInitializer<>() {
      @Override
      protected void initChannel(Channel stream) {
        stream.pipeline().addLast(new Http2StreamFrameToHttpObjectCodec(true));
        answering(stream.pipeline(), json);
      }
    };
  }

  private static void answering(ChannelPipeline pipeline, byte[] json) {
    pipeline.addLast(new HttpObjectAggregator(1024 * 1024)).addLast(new SameAnswer(json));
  }

  String url(String path) {
    return "http://localhost:" + ((InetSocketAddress) listener.localAddress()).getPort() + path;
  }

  @Override
  public void close() {
    group.shutdownGracefully().syncUninterruptibly();
  }

  private static final class SameAnswer extends SimpleChannelInboundHandler<FullHttpRequest> {

    private final byte[] json;

    SameAnswer(byte[] json) {
      this.json = json;
    }

    @Override
    protected void channelRead0(ChannelHandlerContext context, FullHttpRequest request) {
      DefaultFullHttpResponse response =
          new DefaultFullHttpResponse(
              HttpVersion.HTTP_1_1, HttpResponseStatus.OK, Unpooled.wrappedBuffer(json));
      response.headers().set("content-type", "application/json");
      response.headers().set("content-length", json.length);
      context.writeAndFlush(response);
    }
  }
}
