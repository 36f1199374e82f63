// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.identity.IdentityClient;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** The declared clients. If there are none, every client is known. Thread-safe. */
public final class Clients {

  private final Map<String, IdentityClient> declared = new LinkedHashMap<>();
  private final Function<IdentityClient, ClientRecord> reading;

  /** Creates it, with what reads a declaration. */
  public Clients(Function<IdentityClient, ClientRecord> reading) {
    this.reading = reading;
  }

  /** Returns the client with this identifier, which is created if there is none. */
  public synchronized IdentityClient client(String id, Function<String, IdentityClient> creating) {
    return declared.computeIfAbsent(id, creating);
  }

  /** Returns true if clients that are not declared are refused. */
  synchronized boolean isStrict() {
    return !declared.isEmpty();
  }

  /** Returns the client with this identifier; empty if it is not known. */
  synchronized Optional<ClientRecord> known(String id) {
    IdentityClient client = declared.get(id);
    return client != null
        ? Optional.of(reading.apply(client))
        : isStrict() ? Optional.empty() : Optional.of(ClientRecord.of(id));
  }

  /** Returns the identifiers, for messages. */
  synchronized String names() {
    return String.join(", ", declared.keySet());
  }

  /** Returns what is declared of all. */
  public synchronized List<ClientRecord> all() {
    return declared.values().stream().map(reading).toList();
  }
}
