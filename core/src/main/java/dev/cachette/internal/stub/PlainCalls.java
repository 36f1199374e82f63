package dev.cachette.internal.stub;

import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Hosts;

/** Calls by plain HTTP whose caller may mean a service that is called by HTTPS elsewhere. */
final class PlainCalls {

  private PlainCalls() {}

  /** Whether a request is one: a service has a name. */
  static boolean mayMeanSecure(Request request) {
    return request.uri().scheme().equals("http") && !Hosts.isAddress(request.uri().host());
  }

  /** The same request as a call by HTTPS. */
  static Request secured(Request request) {
    Uri plain = request.uri();
    int port = plain.port() == Uri.defaultPort("http") ? Uri.defaultPort("https") : plain.port();
    String target = plain.toString().substring(plain.origin().length());
    Uri uri = Uri.at("https", plain.host(), port, target);
    return new Request(request.method(), uri, request.headers(), request.body());
  }
}
