// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * A failed attempt to connect, as an exchange. There is no request before a connection is
 * established, so it is recorded as a CONNECT request (RFC 9110 section 9.3.6).
 */
public final class FailedConnection {

  public static final String METHOD = "CONNECT";

  /** The port, if none is known yet. */
  public static final int HTTPS = 443;

  private static final int HTTP = 80;

  private FailedConnection() {}

  /** Returns the exchange. */
  public static Exchange of(
      Instant started, Duration time, String host, int port, Fault.Kind fault) {
    Request attempt = new Request(METHOD, uri(host, port), Headers.none(), Body.empty());
    return Exchange.failed(started, time, attempt, fault);
  }

  /** Returns the CONNECT request for a host and a port. */
  public static Uri uri(String host, int port) {
    return new Uri(port == HTTP ? "http" : "https", host, port, "/", Optional.empty());
  }
}
