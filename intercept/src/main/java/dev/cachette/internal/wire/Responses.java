package dev.cachette.internal.wire;

import dev.cachette.http.Response;
import io.netty.buffer.Unpooled;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.DefaultHttpHeadersFactory;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpResponseStatus;
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
    if (response.status() != 204 && response.status() != 304) {
      written.headers().set(HttpHeaderNames.CONTENT_LENGTH, response.body().size());
    }
    return written;
  }
}
