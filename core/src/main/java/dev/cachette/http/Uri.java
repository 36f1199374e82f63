package dev.cachette.http;

import dev.cachette.internal.uri.Hosts;
import dev.cachette.internal.uri.Percent;
import java.net.URI;
import java.util.Locale;
import java.util.Optional;

/**
 * The absolute {@code http} or {@code https} URI of a request, in its parts (RFC 3986, RFC 9110
 * section 4.2). Path and query are kept exactly as they were sent, even where {@link URI} would
 * refuse them.
 *
 * @param scheme {@code http} or {@code https}
 * @param host the host in lower case; an IPv6 address as RFC 5952 writes it, without brackets
 * @param port the port; the scheme's own if none was written
 * @param path the path as sent, percent-encoding and all; at least {@code "/"}
 * @param rawQuery the query as sent, without its question mark; empty if there was none
 */
public record Uri(String scheme, String host, int port, String path, Optional<String> rawQuery) {

  /** Puts the host into its one form, and an absent path as {@code "/"}. */
  public Uri {
    host = Hosts.canonical(host);
    path = path.isEmpty() ? "/" : path;
  }

  /**
   * Reads an absolute URL; user information and a fragment, which are never sent, are left out.
   *
   * @throws IllegalArgumentException if it has no scheme and host, or its port is none
   */
  public static Uri parse(String url) {
    int authority = url.indexOf("://");
    if (authority <= 0 || url.length() == authority + 3) {
      throw new IllegalArgumentException(
          "\"" + url + "\" is no absolute URL, such as https://tides.example/v1");
    }
    int path = indexOfAny(url, "/?#", authority + 3);
    String written = url.substring(authority + 3, path);
    String hostAndPort = written.substring(written.indexOf('@') + 1);
    int colon = hostAndPort.indexOf(':', hostAndPort.lastIndexOf(']') + 1);
    String host = colon < 0 ? hostAndPort : hostAndPort.substring(0, colon);
    String port = colon < 0 ? "" : hostAndPort.substring(colon + 1);
    if (host.isEmpty() || !isPort(port)) {
      throw new IllegalArgumentException(
          "\"" + url + "\" has no host and port, such as tides.example:8080");
    }
    String scheme = url.substring(0, authority).toLowerCase(Locale.ROOT);
    int number = port.isEmpty() ? defaultPort(scheme) : Integer.parseInt(port);
    return at(scheme, host, number, url.substring(path, indexOfAny(url, "#", path)));
  }

  /**
   * Reads an origin (RFC 6454): scheme, host, perhaps a port, and nothing behind them but a slash.
   *
   * @throws IllegalArgumentException if it is none, or is neither {@code http} nor {@code https}
   */
  public static Uri parseOrigin(String origin) {
    try {
      Uri uri = parse(String.valueOf(origin));
      boolean http = uri.scheme.equals("http") || uri.scheme.equals("https");
      if (http && uri.path.equals("/") && uri.rawQuery.isEmpty()) {
        return uri;
      }
    } catch (IllegalArgumentException malformed) {
      // Told below, as all that is no origin.
    }
    throw new IllegalArgumentException(
        String.format(
            "An origin is a scheme, a host and perhaps a port, such as \"https://tides.example\"; "
                + "not \"%s\".",
            origin));
  }

  private static boolean isPort(String text) {
    return text.isEmpty() || text.length() <= 5 && text.chars().allMatch(c -> c >= '0' && c <= '9');
  }

  private static int indexOfAny(String text, String wanted, int from) {
    for (int at = from; at < text.length(); at++) {
      if (wanted.indexOf(text.charAt(at)) >= 0) {
        return at;
      }
    }
    return text.length();
  }

  /**
   * The URI that a request target means at a known origin.
   *
   * @param target path and query as they stand in a request: {@code /v1/tides?day=2}
   */
  public static Uri at(String scheme, String host, int port, String target) {
    int question = target.indexOf('?');
    return question < 0
        ? new Uri(scheme, host, port, target, Optional.empty())
        : new Uri(
            scheme,
            host,
            port,
            target.substring(0, question),
            Optional.of(target.substring(question + 1)));
  }

  /** The port that a scheme has by default: 443 for {@code https}, else 80. */
  public static int defaultPort(String scheme) {
    return scheme.equals("https") ? 443 : 80;
  }

  /** Scheme, host and, where it is not the scheme's own, port: {@code https://tides.example}. */
  public String origin() {
    String written = host.indexOf(':') < 0 ? host : "[" + host + "]";
    return scheme + "://" + written + (port == defaultPort(scheme) ? "" : ":" + port);
  }

  /** The parameters of the query, decoded. */
  public Query query() {
    return Query.read(rawQuery.orElse(""));
  }

  /** This URI as the JDK's type; a character that it refuses is percent-encoded. */
  public URI toJavaUri() {
    String query = rawQuery.map(raw -> "?" + Percent.encodeIllegal(raw)).orElse("");
    return URI.create(origin() + Percent.encodeIllegal(path) + query);
  }

  /** The whole URI, as it was sent. */
  @Override
  public String toString() {
    return origin() + path + rawQuery.map(raw -> "?" + raw).orElse("");
  }
}
