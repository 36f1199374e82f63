// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.ContractFiles;
import dev.cachette.internal.contract.VersionedContract;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.text.Digests;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * The content of a store at one moment.
 *
 * @param contracts the contracts, with the digests of their texts
 * @param labels the labels of versions
 * @param results the verifications
 */
public record Snapshot(
    List<StoredContract> contracts, List<Facts.OfLabel> labels, List<StoredResult> results) {

  /** A contract in the store. */
  record StoredContract(Facts.OfContract fact, VersionedContract contract, String digest) {}

  /** A result in the store, with one line for each unmet clause. */
  record StoredResult(Facts.OfResult fact, List<String> unmet) {}

  static Snapshot of(FileStore files) {
    List<StoredContract> contracts = new ArrayList<>();
    List<Facts.OfLabel> labels = new ArrayList<>();
    List<StoredResult> results = new ArrayList<>();
    for (String path : files.paths()) {
      Facts.contract(path).ifPresent(it -> contracts.add(contract(it, files.read(path))));
      Facts.label(path).ifPresent(labels::add);
      Facts.result(path)
          .ifPresent(
              it ->
                  results.add(
                      new StoredResult(it, it.met() ? List.of() : unmet(files.read(path)))));
    }
    results.sort(Comparator.comparing(it -> it.fact().at()));
    labels.sort(Comparator.comparing(Facts.OfLabel::at));
    return new Snapshot(contracts, labels, results);
  }

  private static StoredContract contract(Facts.OfContract fact, String text) {
    return new StoredContract(
        fact,
        new VersionedContract(fact.version(), ContractFiles.read(fact.path(), text)),
        Digests.of(text));
  }

  private static List<String> unmet(String text) {
    List<String> lines = new ArrayList<>();
    Json.tree(text)
        .path("unmet")
        .forEach(
            it -> lines.add("\"" + it.path("clause").asText() + "\": " + it.path("why").asText()));
    return lines;
  }

  /** Returns all contracts. */
  public List<VersionedContract> all() {
    return contracts.stream().map(StoredContract::contract).toList();
  }

  /** Returns when a version was first seen. */
  Instant since(String name, String version) {
    return labels.stream()
        .filter(it -> it.name().equals(name) && it.version().equals(version))
        .map(Facts.OfLabel::at)
        .findFirst()
        .orElse(Instant.EPOCH);
  }

  /** Returns the versions of a consumer or provider that the store knows, the latest first. */
  public List<String> versions(String name) {
    Set<String> versions = new LinkedHashSet<>();
    labels.stream()
        .filter(it -> it.name().equals(name))
        .map(Facts.OfLabel::version)
        .forEach(versions::add);
    contracts.stream()
        .filter(it -> it.fact().consumer().equals(name))
        .forEach(it -> versions.add(it.fact().version()));
    results.stream()
        .filter(it -> it.fact().provider().equals(name))
        .forEach(it -> versions.add(it.fact().providerVersion()));
    return versions.stream()
        .sorted(
            Comparator.comparing((String it) -> since(name, it))
                .thenComparing(Comparator.naturalOrder())
                .reversed())
        .toList();
  }

  /** Returns the version that was last labelled with each environment, by name. */
  Map<String, String> in(String environment) {
    Map<String, String> versions = new TreeMap<>();
    labels.stream()
        .filter(it -> it.kind().equals("environment") && it.value().equals(environment))
        .forEach(it -> versions.put(it.name(), it.version()));
    return versions;
  }

  /** Returns the environments that a version is in now, and the branches that it is from. */
  List<String> labelsOf(String name, String version) {
    Set<String> all = new LinkedHashSet<>();
    for (Facts.OfLabel label : labels) {
      boolean own = label.name().equals(name) && label.version().equals(version);
      if (own && label.kind().equals("branch")) {
        all.add(label.value());
      } else if (own
          && label.kind().equals("environment")
          && version.equals(in(label.value()).get(name))) {
        all.add("in " + label.value());
      }
    }
    return List.copyOf(all);
  }

  /** Returns the environments that a version is labelled with. */
  public Set<String> environments() {
    Set<String> all = new TreeSet<>();
    labels.stream()
        .filter(it -> it.kind().equals("environment"))
        .forEach(it -> all.add(it.value()));
    return all;
  }

  /**
   * Returns the last result of two versions; also that of another version with the same contract.
   */
  Optional<StoredResult> result(StoredContract contract, String providerVersion) {
    Optional<StoredResult> found = Optional.empty();
    for (StoredResult each : results) {
      Facts.OfResult fact = each.fact();
      if (fact.provider().equals(contract.fact().provider())
          && fact.providerVersion().equals(providerVersion)
          && fact.consumer().equals(contract.fact().consumer())
          && fact.digest().equals(contract.digest())) {
        found = Optional.of(each);
      }
    }
    return found;
  }

  /** Returns the contracts of the latest version of each consumer, and of those in environments. */
  public List<VersionedContract> current() {
    Map<String, StoredContract> chosen = new TreeMap<>();
    Map<String, String> latest = new HashMap<>();
    for (StoredContract each : contracts) {
      String consumer = each.fact().consumer();
      latest.computeIfAbsent(consumer, it -> versions(it).get(0));
    }
    for (StoredContract each : contracts) {
      String consumer = each.fact().consumer();
      String version = each.fact().version();
      boolean isDeployed =
          environments().stream().anyMatch(it -> version.equals(in(it).get(consumer)));
      if (version.equals(latest.get(consumer)) || isDeployed) {
        chosen.put(each.fact().path(), each);
      }
    }
    return chosen.values().stream().map(StoredContract::contract).toList();
  }
}
