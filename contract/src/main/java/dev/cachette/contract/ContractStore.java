// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.internal.contract.Contract;
import dev.cachette.internal.contract.ContractChanges;
import dev.cachette.internal.contract.Names;
import dev.cachette.internal.contract.VersionedContract;
import dev.cachette.internal.contract.store.ContractSources;
import dev.cachette.internal.contract.store.Library;
import dev.cachette.internal.contract.store.Matrix;
import dev.cachette.internal.contract.store.Releases;
import dev.cachette.internal.contract.store.Snapshot;
import dev.cachette.internal.contract.store.Stores;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.verification.Compatibility;
import dev.cachette.verification.ContractChange;
import dev.cachette.verification.ReleaseDecision;
import dev.cachette.verification.StoreException;
import dev.cachette.verification.VerificationResult;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * A store of contracts by version of the consumer, with results of verification by version of the
 * provider, and with labels: the branch that a version is from, the environment that it is in.
 *
 * <p>A store is at one of these:
 *
 * <ul>
 *   <li>a folder: {@code /srv/contracts};
 *   <li>a git repository: {@code git+https://git.example/contracts.git}, {@code
 *       git+ssh://git@git.example/contracts.git}, or the path of one without a working tree;
 *   <li>an HTTP server that takes PUT and lists folders: {@code https://contracts.example/}.
 * </ul>
 *
 * <p>Everything in it is a file that is written once. So concurrent publishing loses nothing, and
 * what was there stays there.
 *
 * <p>Thread-safe, also among processes.
 */
public final class ContractStore {

  private final String location;
  private final Library library;
  private final Clock clock;

  private ContractStore(String location, Library library, Clock clock) {
    this.location = location;
    this.library = library;
    this.clock = clock;
  }

  /** Returns the store at a location; publishing creates a folder that does not exist. */
  public static ContractStore at(String location) {
    Refusals.given("at(location)", location);
    return new ContractStore(Stores.shown(location), Stores.at(location), Clock.systemUTC());
  }

  /** Takes the time from another clock: times of publishing and verification. */
  public ContractStore clock(Clock other) {
    return new ContractStore(location, library, Refusals.given("clock(clock)", other));
  }

  /**
   * Labels of a version.
   *
   * @param branch the branch that it is from, if it is known
   * @param environment the environment that it is in from now on, instead of another version
   */
  public record Labels(Optional<String> branch, Optional<String> environment) {

    /** No labels. */
    public static final Labels NONE = new Labels(Optional.empty(), Optional.empty());

    /**
     * Validates the labels.
     *
     * @throws IllegalArgumentException if one is malformed
     */
    public Labels {
      branch.ifPresent(it -> Names.label("A branch", it));
      environment.ifPresent(it -> Names.label("An environment", it));
    }

    private Map<String, String> all() {
      Map<String, String> all = new LinkedHashMap<>();
      branch.ifPresent(it -> all.put("branch", it));
      environment.ifPresent(it -> all.put("environment", it));
      return all;
    }
  }

  /**
   * Adds the contracts of a version of a consumer. Has no effect on those that are there already
   * with the same text.
   *
   * @param locations contract files, or folders of them
   * @param version the version of the consumer, or a commit
   * @return what was published: {@code harbour-desk@2.1 with berths}
   * @throws StoreException if the version is there with another text, or the store cannot be
   *     written
   * @throws dev.cachette.stubfile.StubFileException if a file is invalid
   */
  public List<String> publish(List<Path> locations, String version, Labels labels) {
    Names.version(version);
    List<Contract> contracts = new ArrayList<>();
    for (Path each : Refusals.given("publish(locations, version, labels)", locations)) {
      ContractSources.at(each.toString()).read().forEach(it -> contracts.add(it.contract()));
    }
    if (contracts.isEmpty()) {
      throw Refusals.argument("publish(locations, version, labels) needs at least one contract.");
    }
    library.publish(contracts, version, labels.all(), now());
    return contracts.stream()
        .map(it -> it.consumer() + "@" + version + " with " + it.provider())
        .sorted()
        .toList();
  }

  /**
   * Labels a version of a consumer or a provider.
   *
   * @throws StoreException if the store does not know the version, or cannot be written
   */
  public void label(String name, String version, Labels labels) {
    Names.require("The name", name);
    Names.version(version);
    requireKnown(name, version);
    library.label(name, version, labels.all(), now());
  }

  private void requireKnown(String name, String version) {
    List<String> known = library.snapshot().versions(name);
    if (!known.contains(version)) {
      throw new StoreException(
          String.format(
              "%s does not know %s@%s. Fix: publish its contracts, or verify it, first. Versions of"
                  + " %s: %s.",
              location, name, version, name, known.isEmpty() ? "none" : String.join(", ", known)));
    }
  }

  /**
   * Adds the result of a verification of contracts of this store.
   *
   * @param version the version of the provider, or a commit
   * @throws StoreException if the store cannot be written
   */
  public void record(VerificationResult result, String version) {
    Names.version(version);
    Refusals.given("record(result, version)", result);
    library.record(result, version, now());
  }

  /**
   * Returns what has changed in the contracts of a consumer from one version to another.
   *
   * @throws StoreException if the store does not know a version
   */
  public List<ContractChange> compare(String consumer, String before, String after) {
    Names.require("The consumer", consumer);
    List<VersionedContract> all = library.snapshot().all();
    Map<String, Contract> old = contracts(all, consumer, before);
    Map<String, Contract> now = contracts(all, consumer, after);
    List<ContractChange> changes = new ArrayList<>();
    TreeSet<String> providers = new TreeSet<>(old.keySet());
    providers.addAll(now.keySet());
    for (String provider : providers) {
      Contract none = new Contract(consumer, provider, "", List.of());
      changes.addAll(
          ContractChanges.of(old.getOrDefault(provider, none), now.getOrDefault(provider, none)));
    }
    return changes;
  }

  private Map<String, Contract> contracts(
      List<VersionedContract> all, String consumer, String version) {
    Map<String, Contract> found = new TreeMap<>();
    all.stream()
        .filter(it -> it.contract().consumer().equals(consumer) && it.version().equals(version))
        .forEach(it -> found.put(it.contract().provider(), it.contract()));
    if (found.isEmpty()) {
      requireKnown(consumer, version);
      throw new StoreException(location + " has no contract of " + consumer + "@" + version + ".");
    }
    return found;
  }

  /** Returns which versions of consumers and providers work together, as far as is known. */
  public Compatibility compatibility() {
    return new Compatibility(Matrix.of(library.snapshot()));
  }

  /**
   * Answers whether a version can go to an environment: as a provider, it meets the contracts of
   * each consumer that is there; as a consumer, each provider that is there meets its contract.
   *
   * @throws StoreException if the store does not know the version
   */
  public ReleaseDecision release(String name, String version, String environment) {
    Names.label("An environment", environment);
    requireKnown(name, version);
    Snapshot store = library.snapshot();
    if (!store.environments().contains(environment)) {
      throw new StoreException(
          String.format(
              "%s has no version that is labelled with the environment \"%s\". Environments: %s."
                  + " Fix: label what is in it: cachette label NAME@VERSION --in %s --environment"
                  + " %s",
              location,
              environment,
              store.environments().isEmpty() ? "none" : String.join(", ", store.environments()),
              location,
              environment));
    }
    return new ReleaseDecision(
        name, version, environment, Releases.findings(store, name, version, environment));
  }

  private Instant now() {
    return clock.instant();
  }

  /** Returns the location. */
  @Override
  public String toString() {
    return location;
  }
}
