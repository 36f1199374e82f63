// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.store.Snapshot.StoredContract;
import dev.cachette.internal.contract.store.Snapshot.StoredResult;
import dev.cachette.verification.Compatibility.Outcome;
import dev.cachette.verification.ReleaseDecision.Finding;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Finds what speaks against a release. */
public final class Releases {

  private Releases() {}

  /** Returns a finding for each version in an environment that a version has a contract with. */
  public static List<Finding> findings(
      Snapshot store, String name, String version, String environment) {
    Map<String, String> deployed = store.in(environment);
    List<Finding> findings = new ArrayList<>();
    for (StoredContract contract : store.contracts()) {
      String consumer = contract.fact().consumer();
      String provider = contract.fact().provider();
      if (provider.equals(name) && contract.fact().version().equals(deployed.get(consumer))) {
        findings.add(finding(store, contract, version, consumer + "@" + contract.fact().version()));
      }
      if (consumer.equals(name)
          && contract.fact().version().equals(version)
          && !provider.equals(name)) {
        findings.add(ofProvider(store, contract, deployed.get(provider), environment));
      }
    }
    return findings;
  }

  private static Finding ofProvider(
      Snapshot store, StoredContract contract, @Nullable String deployed, String environment) {
    String provider = contract.fact().provider();
    return deployed == null
        ? new Finding(
            provider,
            Outcome.UNKNOWN,
            List.of("no version of " + provider + " is labelled with " + environment))
        : finding(store, contract, deployed, provider + "@" + deployed);
  }

  private static Finding finding(
      Snapshot store, StoredContract contract, String providerVersion, String other) {
    Optional<StoredResult> result = store.result(contract, providerVersion);
    String pair =
        String.format(
            "%s@%s was not verified against the contract of %s@%s",
            contract.fact().provider(),
            providerVersion,
            contract.fact().consumer(),
            contract.fact().version());
    return result
        .map(it -> new Finding(other, it.fact().met() ? Outcome.MET : Outcome.UNMET, it.unmet()))
        .orElseGet(() -> new Finding(other, Outcome.UNKNOWN, List.of(pair)));
  }
}
