package dev.cachette.internal.match;

import dev.cachette.http.Uri;
import dev.cachette.internal.text.Likeness;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/** Scheme, host and port, as a request line names them. */
public final class Origin {

  private final String scheme;
  private final HostTemplate host;
  private final int port;

  Origin(String scheme, HostTemplate host, int port) {
    this.scheme = scheme;
    this.host = host;
    this.port = port;
  }

  /** Whether it names one host, not several. */
  public boolean isLiteral() {
    return host.isLiteral();
  }

  /** The host, if it is one and not several. */
  public Optional<String> literalHost() {
    return isLiteral() ? Optional.of(host.toString()) : Optional.empty();
  }

  /** Whether it names this very host and port: a star names none. */
  public boolean isAt(String otherHost, int otherPort) {
    return port == otherPort && host.isLiteral() && hostIs(Hosts.canonical(otherHost));
  }

  /** Whether it means this host, by name or by a star, at this port where one is known. */
  public boolean mayBeAt(String otherHost, OptionalInt otherPort) {
    return (otherPort.isEmpty() || otherPort.getAsInt() == port)
        && hostIs(Hosts.canonical(otherHost));
  }

  /** {@code http} or {@code https}. */
  public String scheme() {
    return scheme;
  }

  /** The variables with their values, if the request goes there. */
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
    double nearness = sameHost ? 0.7 : Likeness.of(host.toString(), uri.host()) * 0.5;
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
          String.format("the same host, but called at port %d, not %d", uri.port(), port));
    }
    return Likeness.of(host.toString(), uri.host()) > 0.8
        ? Optional.of("a host that is spelt almost the same")
        : Optional.empty();
  }

  @Override
  public String toString() {
    String written = host.toString().indexOf(':') < 0 ? host.toString() : "[" + host + "]";
    return scheme + "://" + written + (port == Uri.defaultPort(scheme) ? "" : ":" + port);
  }
}
