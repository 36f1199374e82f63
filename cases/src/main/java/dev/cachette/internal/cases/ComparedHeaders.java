// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;

/**
 * The headers of messages that are compared: all but those of a connection, a client or a server.
 */
final class ComparedHeaders {

  /** They depend on the connection, the time, or the library that sends them. */
  private static final Set<String> NOT_COMPARED =
      Set.of(
          "accept-encoding",
          "age",
          "alt-svc",
          "connection",
          "content-length",
          "date",
          "expect",
          "host",
          "http2-settings",
          "keep-alive",
          "proxy-connection",
          "server",
          "set-cookie",
          "cookie",
          "te",
          "traceparent",
          "tracestate",
          "trailer",
          "transfer-encoding",
          "upgrade",
          "user-agent",
          "x-forwarded-for",
          "x-forwarded-host",
          "x-forwarded-port",
          "x-forwarded-proto",
          "cachette-passed-by");

  private ComparedHeaders() {}

  static boolean isCompared(String name) {
    return !NOT_COMPARED.contains(name.toLowerCase(Locale.ROOT));
  }

  /** Returns their names in two messages, in lower case. */
  static Set<String> names(Headers one, Headers other) {
    Set<String> names = new TreeSet<>();
    for (Headers headers : List.of(one, other)) {
      for (Header header : headers) {
        if (isCompared(header.name())) {
          names.add(header.name().toLowerCase(Locale.ROOT));
        }
      }
    }
    return names;
  }
}
