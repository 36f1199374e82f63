// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.internal.contract.Clause;
import dev.cachette.internal.contract.VersionedContract;
import dev.cachette.verification.ClauseResult;
import java.util.List;
import java.util.function.BiFunction;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicContainer;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.DynamicTest;
import org.opentest4j.AssertionFailedError;

/** Makes dynamic tests of clauses; apart from the rest, which works without JUnit. */
final class ClauseTests {

  private ClauseTests() {}

  /** Returns a container for each consumer. */
  static Stream<DynamicNode> of(
      List<VersionedContract> contracts,
      BiFunction<VersionedContract, Clause, ClauseResult> verification) {
    return contracts.stream()
        .map(
            contract ->
                DynamicContainer.dynamicContainer(
                    ContractVerification.title(contract),
                    contract.contract().clauses().stream()
                        .map(
                            clause ->
                                DynamicTest.dynamicTest(
                                    clause.name(),
                                    () -> requireMet(verification.apply(contract, clause))))));
  }

  private static void requireMet(ClauseResult result) {
    if (!result.isMet()) {
      throw new AssertionFailedError(result.explanation());
    }
  }
}
