// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import java.util.Set;
import java.util.function.Supplier;

/**
 * Makes a run after which clients have no connections over HTTP/1.1 to some services. A service may
 * be unreachable in the next run, and some clients would notice the end of a connection only after
 * they have sent a request.
 */
final class UnkeptConnections {

  private UnkeptConnections() {}

  static <R> R during(Cachette net, Set<String> origins, Supplier<R> run) {
    CachetteInternals.keepNoConnections(net, origins);
    try {
      return run.get();
    } finally {
      CachetteInternals.keepNoConnections(net, Set.of());
    }
  }
}
