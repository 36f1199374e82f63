// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import io.netty.buffer.Unpooled;
import io.netty.handler.codec.http.DefaultFullHttpResponse;
import io.netty.handler.codec.http.DefaultHttpHeadersFactory;
import io.netty.handler.codec.http.DefaultHttpResponse;
import io.netty.handler.codec.http.DefaultLastHttpContent;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpHeaders;
import io.netty.handler.codec.http.HttpResponse;
import io.netty.handler.codec.http.HttpResponseStatus;
import io.netty.handler.codec.http.HttpUtil;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.handler.codec.http.LastHttpContent;

/** Converts a response to what the HTTP engine writes. */
final class Responses {

  private Responses() {}

  /** Returns the complete response. */
  static FullHttpResponse whole(Response response, boolean keepAlive) {
    DefaultFullHttpResponse written =
        new DefaultFullHttpResponse(
            HttpVersion.HTTP_1_1,
            HttpResponseStatus.valueOf(response.status()),
            Unpooled.wrappedBuffer(response.body().buffer()),
            DefaultHttpHeadersFactory.headersFactory().withValidation(false),
            DefaultHttpHeadersFactory.trailersFactory());
    setHeaders(written, response, !response.trailers().isEmpty(), response.body().size());
    addTo(written.trailingHeaders(), response.trailers());
    HttpUtil.setKeepAlive(written, keepAlive);
    return written;
  }

  /**
   * Returns status and headers.
   *
   * @param chunked whether the length of the body is unknown
   * @param length the length otherwise
   */
  static HttpResponse head(Response response, boolean chunked, long length, boolean keepAlive) {
    DefaultHttpResponse written =
        new DefaultHttpResponse(
            HttpVersion.HTTP_1_1,
            HttpResponseStatus.valueOf(response.status()),
            DefaultHttpHeadersFactory.headersFactory().withValidation(false));
    setHeaders(written, response, chunked || !response.trailers().isEmpty(), length);
    HttpUtil.setKeepAlive(written, keepAlive);
    return written;
  }

  /** Returns what follows the body. */
  static LastHttpContent end(Headers trailers) {
    if (trailers.isEmpty()) {
      return LastHttpContent.EMPTY_LAST_CONTENT;
    }
    LastHttpContent end = new DefaultLastHttpContent();
    addTo(end.trailingHeaders(), trailers);
    return end;
  }

  /** A response to HEAD has the length of the response to GET, so an existing one is kept. */
  private static void setHeaders(
      HttpResponse written, Response response, boolean chunked, long length) {
    // Validated when the answer was created.
    addTo(written.headers(), response.headers());
    if (chunked) {
      HttpUtil.setTransferEncodingChunked(written, true);
      response
          .trailers()
          .forEach(trailer -> written.headers().add(HttpHeaderNames.TRAILER, trailer.name()));
    } else if (response.status() != 204
        && response.status() != 304
        && !written.headers().contains(HttpHeaderNames.CONTENT_LENGTH)) {
      written.headers().set(HttpHeaderNames.CONTENT_LENGTH, length);
    }
  }

  private static void addTo(HttpHeaders written, Headers headers) {
    headers.forEach(header -> written.add(header.name(), header.value()));
  }
}
