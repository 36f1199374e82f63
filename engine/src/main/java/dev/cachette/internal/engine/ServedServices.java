// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import java.util.List;
import java.util.Optional;

/** The services that other modules stand in for, in the open scopes. */
public final class ServedServices {

  private final Scopes scopes;

  /** True once there has been one: most sessions have none. */
  private volatile boolean any;

  ServedServices(Scopes scopes) {
    this.scopes = scopes;
  }

  /** Answers for a service, in the innermost scope. */
  public void add(ServedService service) {
    scopes.ask(
        all -> {
          all.get(0).serve(service);
          return true;
        });
    any = true;
  }

  /** Returns the services at the host of a request, the innermost, last declared one first. */
  List<ServedService> of(Request request) {
    return at(request.uri().host(), request.uri().port());
  }

  /** Returns the services at a host and port. */
  List<ServedService> at(String host, int port) {
    return all().stream().filter(service -> service.isAt(host, port)).toList();
  }

  /** Without the lock of the scopes: whoever asks may hold that of a cassette. */
  private List<ServedService> all() {
    return any ? scopes.open().stream().flatMap(it -> it.services().stream()).toList() : List.of();
  }

  /** Returns true if a service answers a request even if there is a recorded response. */
  public boolean replaceRecorded(Request request) {
    return of(request).stream().anyMatch(it -> it.replacesRecorded(request));
  }

  /** Returns a token of these claims, signed by the service that is its issuer. */
  public Optional<String> sign(String claims, Optional<String> nonce) {
    return all().stream().flatMap(it -> it.sign(claims, nonce, scopes.now()).stream()).findFirst();
  }
}
