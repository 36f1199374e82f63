// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.http.Uri;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/** Scheme, host and port of a request line. */
public final class Origin {

  private final String scheme;
  private final HostTemplate host;
  private final int port;

  Origin(String scheme, HostTemplate host, int port) {
    this.scheme = scheme;
    this.host = host;
    this.port = port;
  }

  /** Returns true if it is one host, not several. */
  public boolean isLiteral() {
    return host.isLiteral();
  }

  /** Returns the host, if it is exactly one. */
  public Optional<String> literalHost() {
    return isLiteral() ? Optional.of(host.toString()) : Optional.empty();
  }

  /** Returns true if it is exactly this host and port; never for a star. */
  public boolean isAt(String otherHost, int otherPort) {
    return port == otherPort && host.isLiteral() && hostIs(Hosts.canonical(otherHost));
  }

  /** Returns true if it matches this host, and this port if it is known. */
  public boolean mayBeAt(String otherHost, OptionalInt otherPort) {
    return (otherPort.isEmpty() || otherPort.getAsInt() == port)
        && hostIs(Hosts.canonical(otherHost));
  }

  /** {@code http} or {@code https}. */
  public String scheme() {
    return scheme;
  }

  /** Returns the variables with their values, if the request goes there. */
  Optional<Map<String, String>> match(Uri uri) {
    return port == uri.port() && scheme.equals(uri.scheme())
        ? host.match(uri.host())
        : Optional.empty();
  }

  Check examine(Uri uri) {
    if (match(uri).isPresent()) {
      return Check.held("origin", toString());
    }
    boolean sameHost = hostIs(uri.host());
    double nearness = sameHost ? 0.7 : NameSuggester.of(host.toString(), uri.host()) * 0.5;
    return Check.missed(
        "origin", nearness, Difference.of(toString(), uri.origin()).because(cause(uri, sameHost)));
  }

  private boolean hostIs(String canonical) {
    return host.match(canonical).isPresent();
  }

  private Optional<String> cause(Uri uri, boolean sameHost) {
    if (sameHost && !scheme.equals(uri.scheme())) {
      return Optional.of(
          String.format("the same host, but called by %s, not %s", uri.scheme(), scheme));
    }
    if (sameHost) {
      return Optional.of(
          String.format("the same host, but called on port %d, not %d", uri.port(), port));
    }
    return NameSuggester.of(host.toString(), uri.host()) > 0.8
        ? Optional.of("a similarly spelled host")
        : Optional.empty();
  }

  @Override
  public String toString() {
    String written = host.toString().indexOf(':') < 0 ? host.toString() : "[" + host + "]";
    return scheme + "://" + written + (port == Uri.defaultPort(scheme) ? "" : ":" + port);
  }
}
