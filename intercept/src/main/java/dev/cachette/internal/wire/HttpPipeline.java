package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http.HttpDecoderConfig;
import io.netty.handler.codec.http.HttpServerCodec;

/**
 * What every HTTP/1.1 connection goes through (RFC 9112).
 *
 * @param responder answers the requests
 * @param workers run the user's own functions
 * @param maxRequestBody how many bytes of a request's body are held in memory at most
 */
record HttpPipeline(Responder responder, Workers workers, int maxRequestBody) {

  private static final int LONGEST_LINE = 64 * 1024;
  private static final int LARGEST_HEAD = 256 * 1024;

  void addTo(ChannelPipeline pipeline, Destination destination, boolean secure) {
    HttpDecoderConfig lenient =
        new HttpDecoderConfig()
            .setMaxInitialLineLength(LONGEST_LINE)
            .setMaxHeaderSize(LARGEST_HEAD);
    pipeline.addLast(new HttpServerCodec(lenient));
    pipeline.addLast(new WholeRequests(destination, responder, maxRequestBody));
    pipeline.addLast(
        new ExchangeHandler(destination, secure ? "https" : "http", responder, workers));
  }
}
