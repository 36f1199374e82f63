package dev.cachette.internal.wire;

import dev.cachette.http.Response;
import io.netty.buffer.Unpooled;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.DefaultHttpHeadersFactory;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.HttpVersion;

/** Turns a response into what the HTTP engine writes. */
final class Responses {

  private Responses() {}

  static FullHttpResponse toNetty(Response response) {
    DefaultFullHttpResponse written =
        new DefaultFullHttpResponse(
            HttpVersion.HTTP_1_1,
            HttpResponseStatus.valueOf(response.status()),
            Unpooled.wrappedBuffer(response.body().bytes()),
            DefaultHttpHeadersFactory.headersFactory().withValidation(false),
            DefaultHttpHeadersFactory.trailersFactory());
    // Checked when the answer was made.
    response.headers().forEach(header -> written.headers().add(header.name(), header.value()));
    response
        .trailers()
        .forEach(trailer -> written.trailingHeaders().add(trailer.name(), trailer.value()));
    setLength(written, response);
    return written;
  }

  /** A response to HEAD has the length of what GET would get, so one that is set stays. */
  private static void setLength(FullHttpResponse written, Response response) {
    if (!written.trailingHeaders().isEmpty()) {
      HttpUtil.setTransferEncodingChunked(written, true);
      response
          .trailers()
          .forEach(trailer -> written.headers().add(HttpHeaderNames.TRAILER, trailer.name()));
    } else if (response.status() != 204
        && response.status() != 304
        && !written.headers().contains(HttpHeaderNames.CONTENT_LENGTH)) {
      written.headers().set(HttpHeaderNames.CONTENT_LENGTH, response.body().size());
    }
  }
}
