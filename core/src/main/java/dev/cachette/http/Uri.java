// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.internal.uri.Percent;
import java.net.URI;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The absolute {@code http} or {@code https} URI of a request, in its parts (RFC 3986, RFC 9110
 * section 4.2). Path and query are kept exactly as sent, even if {@link URI} would reject them.
 *
 * @param scheme {@code http} or {@code https}
 * @param host the host in lower case; an IPv6 address as in RFC 5952, without brackets
 * @param port the port; the default port of the scheme if none was given
 * @param path the path as sent, still percent-encoded; at least {@code "/"}
 * @param rawQuery the query as sent, without its question mark; empty if there was none
 */
public record Uri(String scheme, String host, int port, String path, Optional<String> rawQuery) {

  private static final int LARGEST_PORT = 65_535;

  /** Characters that no host has (RFC 3986 section 3.2.2). */
  private static final Pattern IMPOSSIBLE = Pattern.compile("[\\s\\p{Cntrl}\"<>\\\\^`{|}]");

  /** Normalises the host, and an absent path to {@code "/"}. */
  public Uri {
    host = Hosts.canonical(host);
    path = path.isEmpty() ? "/" : path;
  }

  /**
   * Parses an absolute URL, without user information and fragment, which are never sent.
   *
   * @throws IllegalArgumentException if it has no scheme and host, or an invalid port
   */
  public static Uri parse(String url) {
    int authority = url.indexOf("://");
    if (authority <= 0 || url.length() == authority + 3) {
      throw Refusals.argument(
          "\"" + url + "\" is not an absolute URL, such as https://tides.example/v1");
    }
    int path = indexOfAny(url, "/?#", authority + 3);
    String written = url.substring(authority + 3, path);
    String hostAndPort = written.substring(written.indexOf('@') + 1);
    int colon = hostAndPort.indexOf(':', hostAndPort.lastIndexOf(']') + 1);
    String host = colon < 0 ? hostAndPort : hostAndPort.substring(0, colon);
    String port = colon < 0 ? "" : hostAndPort.substring(colon + 1);
    if (host.isEmpty() || !isPort(port)) {
      throw Refusals.argument("\"" + url + "\" has no host and port, such as tides.example:8080");
    }
    String scheme = url.substring(0, authority).toLowerCase(Locale.ROOT);
    int number = port.isEmpty() ? defaultPort(scheme) : Integer.parseInt(port);
    return at(scheme, host, number, url.substring(path, indexOfAny(url, "#", path)));
  }

  /**
   * Parses an origin (RFC 6454): scheme, host, optional port, and at most a slash after them.
   *
   * @throws IllegalArgumentException if it is not an origin, or neither {@code http} nor {@code
   *     https}
   */
  public static Uri parseOrigin(String origin) {
    try {
      Uri uri = parse(String.valueOf(origin));
      boolean http = uri.scheme.equals("http") || uri.scheme.equals("https");
      boolean possible = uri.port <= LARGEST_PORT && !IMPOSSIBLE.matcher(uri.host).find();
      if (http && possible && uri.path.equals("/") && uri.rawQuery.isEmpty()) {
        return uri;
      }
    } catch (IllegalArgumentException malformed) {
      // Reported below, like everything that is not an origin.
    }
    throw Refusals.argument(
        String.format(
            "An origin is a scheme, a host and an optional port, such as \"https://tides.example\";"
                + " not \"%s\".",
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
   * Returns the URI of a request target at a known origin.
   *
   * @param target path and query of a request: {@code /v1/tides?day=2}
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

  /** Returns the default port of a scheme: 443 for {@code https}, otherwise 80. */
  public static int defaultPort(String scheme) {
    return scheme.equals("https") ? 443 : 80;
  }

  /** Returns scheme, host and, if it is not the default, port: {@code https://tides.example}. */
  public String origin() {
    String written = host.indexOf(':') < 0 ? host : "[" + host + "]";
    return scheme + "://" + written + (port == defaultPort(scheme) ? "" : ":" + port);
  }

  /** Returns the parameters of the query, decoded. */
  public Query query() {
    return Query.read(rawQuery.orElse(""));
  }

  /** Returns this URI as a JDK type; characters that it does not accept are percent-encoded. */
  public URI toJavaUri() {
    String query = rawQuery.map(raw -> "?" + Percent.encodeIllegal(raw)).orElse("");
    return URI.create(origin() + Percent.encodeIllegal(path) + query);
  }

  /** Returns the whole URI, as it was sent. */
  @Override
  public String toString() {
    return origin() + path + rawQuery.map(raw -> "?" + raw).orElse("");
  }
}
