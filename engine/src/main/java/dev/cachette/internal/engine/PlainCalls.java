// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.match.MatchInternals;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Calls over plain HTTP whose caller may mean a service that is normally called over HTTPS, if the
 * session allows for that.
 */
final class PlainCalls {

  private final Scopes scopes;

  PlainCalls(Scopes scopes) {
    this.scopes = scopes;
  }

  /** Returns such a call over HTTPS. */
  Optional<ArrivedCall> overHttps(ArrivedCall call) {
    return mayMeanSecure(call.request()) && !scopes.isRecorded(call.request())
        ? Optional.of(call.of(secured(call.request()), scopes))
        : Optional.empty();
  }

  /** Returns a call that no stub answers as it is meant: over HTTPS, if it is recorded so. */
  ArrivedCall asMeant(ArrivedCall call) {
    return overHttps(call)
        .filter(it -> scopes.isRecorded(it.request()) || it.described().isPresent())
        .orElse(call);
  }

  /** Returns a call that nothing answers, over HTTPS if its host has stubs for HTTPS only. */
  ArrivedCall asStubbed(ArrivedCall call) {
    Request request = call.request();
    if (!mayMeanSecure(request)) {
      return call;
    }
    Request secured = secured(request);
    return hasStubsFor(secured) && !hasStubsFor(request) ? call.of(secured, scopes) : call;
  }

  /** Its host is a name, not an address. */
  private boolean mayMeanSecure(Request request) {
    return scopes.takesPlainForSecure()
        && request.uri().scheme().equals("http")
        && !Hosts.isAddress(request.uri().host());
  }

  private static Request secured(Request request) {
    Uri plain = request.uri();
    int port = plain.port() == Uri.defaultPort("http") ? Uri.defaultPort("https") : plain.port();
    String target = plain.toString().substring(plain.origin().length());
    Uri uri = Uri.at("https", plain.host(), port, target);
    return new Request(request.method(), uri, request.headers(), request.body());
  }

  /** Returns true if a stub has the scheme, host and port of a request. */
  private boolean hasStubsFor(Request request) {
    boolean plain = request.uri().scheme().equals("http");
    OptionalInt port = OptionalInt.of(request.uri().port());
    return scopes.rules().stream()
        .map(StubRule::pattern)
        .anyMatch(
            it ->
                MatchInternals.isPlain(it) == plain
                    && MatchInternals.isFor(it, request.uri().host(), port));
  }
}
