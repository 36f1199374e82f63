package dev.cachette.internal.match;

import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.match.Check;
import java.util.Optional;

/** Scheme, host and port, as a request line names them. */
public record Origin(String scheme, String host, int port) {

  /** Puts the host into its one form. */
  public Origin {
    host = Hosts.canonical(host);
  }

  /** Whether a connection to this host and port is one to this origin. */
  public boolean isAt(String otherHost, int otherPort) {
    return port == otherPort && host.equals(Hosts.canonical(otherHost));
  }

  boolean holds(Uri uri) {
    // Both hosts are in their one form already.
    return port == uri.port() && host.equals(uri.host()) && scheme.equals(uri.scheme());
  }

  Check examine(Uri uri) {
    if (holds(uri)) {
      return Check.held("origin", toString(), uri.origin());
    }
    boolean sameHost = host.equals(uri.host());
    double nearness = sameHost ? 0.7 : Likeness.of(host, uri.host()) * 0.5;
    return Check.missed("origin", nearness, toString(), uri.origin(), cause(uri, sameHost));
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
    return Likeness.of(host, uri.host()) > 0.8
        ? Optional.of("a host that is spelt almost the same")
        : Optional.empty();
  }

  @Override
  public String toString() {
    return new Uri(scheme, host, port, "/", Optional.empty()).origin();
  }
}
