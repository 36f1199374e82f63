// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.Channel;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http2.Http2CodecUtil;
import io.netty.handler.codec.http2.Http2FrameCodec;
import io.netty.handler.codec.http2.Http2FrameCodecBuilder;
import io.netty.handler.codec.http2.Http2MultiplexHandler;
import io.netty.handler.codec.http2.Http2Settings;
import io.netty.handler.codec.http2.Http2StreamFrameToHttpObjectCodec;

/**
 * The handlers of HTTP/2 connections (RFC 9113). Each stream is a channel of its own, whose frames
 * are converted to HTTP/1.1, so that one handler serves both.
 */
final class Http2Streams {

  private static final int MOST_STREAMS = 1_000;
  private static final int LARGEST_HEAD = 256 * 1024;
  private static final int WINDOW = 1 << 20;

  /** Headers that the engine adds for streams. */
  private static final String OF_THE_ENGINE = "x-http2-";

  private Http2Streams() {}

  static void addTo(ChannelPipeline pipeline, Destination destination, boolean secure, Site site) {
    Http2FrameCodec codec =
        Http2FrameCodecBuilder.forServer()
            .initialSettings(
                Http2Settings.defaultSettings()
                    .maxConcurrentStreams(MOST_STREAMS)
                    .initialWindowSize(WINDOW)
                    .maxHeaderListSize(LARGEST_HEAD))
            .gracefulShutdownTimeoutMillis(0)
            .build();
    pipeline.addLast(codec);
    pipeline.addLast(
        new Http2MultiplexHandler(
            new ChannelInitializer<>() {
              @Override
              protected void initChannel(Channel stream) {
                stream.pipeline().addLast(new RequestHeads(destination, site));
                stream.pipeline().addLast(new Http2StreamFrameToHttpObjectCodec(true, false));
                HttpPipeline.addExchanges(stream.pipeline(), destination, secure, site);
              }
            }));
    pipeline.addLast(
        new ChannelInboundHandlerAdapter() {
          @Override
          public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
            // What violates the protocol, the codec answers itself, by GOAWAY with its error code.
            if (Http2CodecUtil.getEmbeddedHttp2Exception(cause) == null) {
              context.close();
            }
          }
        });
  }

  /** Returns true if a header was added by the engine. */
  static boolean isOurs(String header) {
    return header.regionMatches(true, 0, OF_THE_ENGINE, 0, OF_THE_ENGINE.length());
  }
}
