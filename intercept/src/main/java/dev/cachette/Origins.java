package dev.cachette;

import dev.cachette.http.Uri;
import java.net.URI;

/** Reads origins as users write them (RFC 6454). */
final class Origins {

  private Origins() {}

  /** An origin in its parts. */
  record Parts(String scheme, String host, int port) {}

  static Parts parse(String origin) {
    try {
      URI uri = URI.create(String.valueOf(origin));
      boolean http = "http".equals(uri.getScheme()) || "https".equals(uri.getScheme());
      boolean bare = uri.getRawPath() == null || uri.getRawPath().matches("/?");
      if (http && bare && uri.getHost() != null && uri.getRawQuery() == null) {
        int port = uri.getPort() < 0 ? Uri.defaultPort(uri.getScheme()) : uri.getPort();
        return new Parts(uri.getScheme(), uri.getHost(), port);
      }
    } catch (IllegalArgumentException malformed) {
      // Told below.
    }
    throw new IllegalArgumentException(
        String.format(
            "An origin is a scheme, a host and perhaps a port, such as \"https://tides.example\"; "
                + "not \"%s\".",
            origin));
  }
}
