package dev.cachette.internal.cassette;

import dev.cachette.answer.Trouble;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * An attempt to connect that failed, as an exchange: before there is a connection there is no
 * request, so it is written as what RFC 9110 section 9.3.6 has for making one.
 */
public final class FailedConnection {

  static final String METHOD = "CONNECT";

  /** The port that is taken where none is known yet. */
  public static final int HTTPS = 443;

  private static final int HTTP = 80;

  private FailedConnection() {}

  /** The exchange. */
  public static Exchange of(
      Instant started, Duration time, String host, int port, Trouble.Kind trouble) {
    Request attempt = new Request(METHOD, uri(host, port), Headers.none(), Body.empty());
    return Exchange.failed(started, time, attempt, trouble);
  }

  /** What stands for a host and a port, of which no more is known. */
  public static Uri uri(String host, int port) {
    return new Uri(port == HTTP ? "http" : "https", host, port, "/", Optional.empty());
  }
}
