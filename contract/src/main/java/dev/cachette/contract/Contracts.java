// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.Cachette;
import dev.cachette.internal.contract.ContractChanges;
import dev.cachette.internal.contract.store.ContractSources;
import dev.cachette.internal.contract.store.Stores;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.verification.ContractChange;
import java.nio.file.Path;
import java.util.List;

/**
 * Contracts of consumers with providers.
 *
 * <p>In the tests of a consumer, its ordinary stubs become the clauses of a contract:
 *
 * <pre>{@code
 * @BeforeAll
 * static void contract(Cachette net) {
 *   contract = Contracts.record(net, "harbour-desk", "berths", "https://berths.example");
 * }
 * }</pre>
 *
 * <p>In the tests of the provider, each clause is a dynamic test:
 *
 * <pre>{@code
 * @TestFactory
 * Stream<DynamicNode> meetsItsContracts() {
 *   return Contracts.in("contracts").of("berths").against("http://localhost:" + port).tests();
 * }
 * }</pre>
 */
public final class Contracts {

  private Contracts() {}

  /**
   * Begins to record a contract: when the session ends, each call that a stub of the origin has
   * answered in a passing test becomes a clause in {@code <consumer>--<provider>.contract.yaml} in
   * the folder of {@link dev.cachette.Settings#contractFolder}, together with those of other test
   * classes. Calls of this method with the same arguments in one session have no further effect.
   *
   * @param consumer the name of the application that calls: letters, digits, {@code .}, {@code _}
   *     and single {@code -}
   * @param provider the name of the service that answers, of the same characters
   * @param origin the origin of the provider in the calls: {@code https://berths.example}
   * @throws IllegalArgumentException if a name or the origin is malformed
   */
  public static ContractRecording record(
      Cachette net, String consumer, String provider, String origin) {
    Refusals.given("record(net, consumer, provider, origin)", net);
    return ContractRecording.begin(net, consumer, provider, origin);
  }

  /**
   * Returns the contracts in a file, a folder or a store, see {@link ContractStore}.
   *
   * @param location a path; or for a store, also {@code git+...} or an {@code http} URL
   */
  public static StoredContracts in(String location) {
    return new StoredContracts(
        ContractSources.at(Refusals.given("in(location)", location)), Stores.shown(location));
  }

  /**
   * Returns what has changed from one contract file to another: clause by clause, place by place,
   * and whether it asks more of the provider.
   *
   * @throws dev.cachette.stubfile.StubFileException if a file is invalid
   */
  public static List<ContractChange> compare(Path before, Path after) {
    return ContractChanges.of(
        ContractSources.contract(Refusals.given("compare(before, after)", before)),
        ContractSources.contract(Refusals.given("compare(before, after)", after)));
  }

  /** As {@link #in(String)}. */
  public static StoredContracts in(Path location) {
    return in(Refusals.given("in(location)", location).toString());
  }
}
