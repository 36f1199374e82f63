// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import io.netty.handler.codec.http.HttpRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Converts what the HTTP engine has read to a request. */
final class Requests {

  private Requests() {}

  /**
   * Returns a request.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  static Request of(HttpRequest received, Body body, Destination destination, boolean secure) {
    List<Header> fields = new ArrayList<>(received.headers().size());
    for (Map.Entry<String, String> entry : received.headers()) {
      if (!Http2Streams.isOurs(entry.getKey())) {
        fields.add(new Header(entry.getKey(), entry.getValue()));
      }
    }
    Headers headers = Headers.of(fields);
    Uri uri = destination.uriOf(secure, received.uri(), headers.first("host"));
    return new Request(received.method().name(), uri, headers, body);
  }
}
