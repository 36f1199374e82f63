// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.uri.Hosts;
import io.netty.buffer.Unpooled;
import io.netty.handler.codec.http.DefaultFullHttpRequest;
import io.netty.handler.codec.http.DefaultHttpHeadersFactory;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpHeaderValues;
import io.netty.handler.codec.http.HttpHeaders;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpResponse;
import io.netty.handler.codec.http.HttpVersion;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Converts requests and responses between Cachette's and the engine's types. */
final class EngineMessages {

  /** Headers of one connection, not of the message (RFC 9110 section 7.6.1). */
  private static final Set<String> OF_THE_CONNECTION =
      Set.of(
          "connection",
          "keep-alive",
          "proxy-connection",
          "proxy-authorization",
          "te",
          "transfer-encoding",
          "upgrade",
          "http2-settings",
          "content-length",
          "host",
          "expect");

  /** Headers that the engine adds for HTTP/2 streams. */
  private static final String OF_THE_ENGINE = "x-http2-";

  private EngineMessages() {}

  /**
   * Returns a request for the engine, with the Host header of its route.
   *
   * @param keeps whether its connection is kept for other requests
   */
  static FullHttpRequest toEngine(Request request, Route route, boolean keeps) {
    Uri uri = request.uri();
    String path = uri.toString().substring(uri.origin().length());
    DefaultFullHttpRequest written =
        new DefaultFullHttpRequest(
            HttpVersion.HTTP_1_1,
            HttpMethod.valueOf(request.method()),
            route.proxyOfEachCall().isPresent() ? route.target().origin() + path : path,
            Unpooled.wrappedBuffer(request.body().buffer()),
            DefaultHttpHeadersFactory.headersFactory().withValidation(false),
            DefaultHttpHeadersFactory.trailersFactory());
    written.headers().set(HttpHeaderNames.HOST, authority(route.named()));
    route
        .proxyOfEachCall()
        .flatMap(ProxyOnTheWay::authorization)
        .ifPresent(it -> written.headers().set(HttpHeaderNames.PROXY_AUTHORIZATION, it));
    request.headers().stream()
        .filter(header -> !isOfTheConnection(header.name()))
        .forEach(header -> written.headers().add(header.name(), header.value()));
    if (!request.body().isEmpty() || request.headers().has("content-length")) {
      written.headers().set(HttpHeaderNames.CONTENT_LENGTH, request.body().size());
    }
    if (isUpgrade(request)) {
      written.headers().set(HttpHeaderNames.CONNECTION, HttpHeaderValues.UPGRADE);
      written.headers().set(HttpHeaderNames.UPGRADE, request.headers().first("upgrade").get());
    } else if (!keeps) {
      written.headers().set(HttpHeaderNames.CONNECTION, "close");
    }
    return written;
  }

  /** Returns true if the connection is to be used for another protocol. */
  static boolean isUpgrade(Request request) {
    return Explanation.asksForWebSocket(request);
  }

  /** Returns the response without its body. */
  static Response head(HttpResponse received, boolean toHead) {
    Headers headers = headers(received.headers());
    if (toHead && received.headers().contains(HttpHeaderNames.CONTENT_LENGTH)) {
      headers =
          headers.with("content-length", received.headers().get(HttpHeaderNames.CONTENT_LENGTH));
    }
    return new Response(received.status().code(), headers, Body.empty(), Headers.none());
  }

  /** Returns host and port as in a Host header: the port only if it is not the default. */
  static String authority(Uri uri) {
    String host =
        Hosts.isAddress(uri.host()) && uri.host().indexOf(':') >= 0
            ? "[" + uri.host() + "]"
            : uri.host();
    return uri.port() == Uri.defaultPort(uri.scheme()) ? host : host + ":" + uri.port();
  }

  static Headers headers(HttpHeaders received) {
    List<Header> headers = new ArrayList<>(received.size());
    for (Map.Entry<String, String> entry : received) {
      if (!isOfTheConnection(entry.getKey())) {
        headers.add(new Header(entry.getKey(), entry.getValue()));
      }
    }
    return Headers.of(headers);
  }

  private static boolean isOfTheConnection(String name) {
    String lower = name.toLowerCase(Locale.ROOT);
    return OF_THE_CONNECTION.contains(lower) || lower.startsWith(OF_THE_ENGINE);
  }
}
