package dev.cachette.internal.stub;

import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Hosts;

/** Calls over plain HTTP whose caller may mean a service that is normally called over HTTPS. */
final class PlainCalls {

  private PlainCalls() {}

  /** Returns true for such a request: its host is a name, not an address. */
  static boolean mayMeanSecure(Request request) {
    return request.uri().scheme().equals("http") && !Hosts.isAddress(request.uri().host());
  }

  /** Returns the same request over HTTPS. */
  static Request secured(Request request) {
    Uri plain = request.uri();
    int port = plain.port() == Uri.defaultPort("http") ? Uri.defaultPort("https") : plain.port();
    String target = plain.toString().substring(plain.origin().length());
    Uri uri = Uri.at("https", plain.host(), port, target);
    return new Request(request.method(), uri, request.headers(), request.body());
  }
}
