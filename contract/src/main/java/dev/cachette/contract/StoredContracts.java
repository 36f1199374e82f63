// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.internal.contract.VersionedContract;
import dev.cachette.internal.contract.store.ContractSource;
import dev.cachette.internal.misuse.Refusals;
import java.util.List;
import java.util.TreeSet;

/** The contracts at a location, see {@link Contracts#in(String)}. Immutable. */
public final class StoredContracts {

  private final ContractSource source;
  private final String location;

  StoredContracts(ContractSource source, String location) {
    this.source = source;
    this.location = location;
  }

  /**
   * Returns the verification of a provider against its contracts; of a store, those of the latest
   * version of each consumer, and of the versions that are in an environment.
   *
   * @throws IllegalArgumentException if there is none at the location; the message lists the
   *     providers there are
   * @throws dev.cachette.stubfile.StubFileException if a contract file is invalid
   */
  public ContractVerification of(String provider) {
    return of(provider, source.read());
  }

  /**
   * As {@link #of(String)}, of all consumers whose version this is; of a store.
   *
   * @throws IllegalArgumentException if there is none; the message lists the versions there are
   */
  public ContractVerification of(String provider, String consumerVersion) {
    return of(provider, source.readAll()).consumerVersion(consumerVersion);
  }

  private ContractVerification of(String provider, List<VersionedContract> all) {
    Refusals.given("of(provider)", provider);
    List<VersionedContract> own =
        all.stream().filter(it -> it.contract().provider().equals(provider)).toList();
    if (own.isEmpty()) {
      TreeSet<String> providers = new TreeSet<>();
      all.forEach(it -> providers.add(it.contract().provider()));
      throw Refusals.argument(
          String.format(
              "%s has no contract with \"%s\". It has contracts with: %s.",
              location, provider, providers.isEmpty() ? "none" : String.join(", ", providers)));
    }
    return new ContractVerification(provider, location, own);
  }
}
