// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import java.util.List;

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
    return any
        ? scopes
            .ask(all -> all.stream().flatMap(it -> List.copyOf(it.services()).stream()).toList())
            .stream()
            .filter(service -> service.isAt(host, port))
            .toList()
        : List.of();
  }
}
