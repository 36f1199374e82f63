// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * Which versions of consumers and providers work together, as verifications have shown.
 *
 * @param pairs one for each consumer and provider that have a contract
 */
public record Compatibility(List<Pair> pairs) {

  /** Copies the list. */
  public Compatibility {
    pairs = List.copyOf(pairs);
  }

  /**
   * A version with its labels.
   *
   * @param number the version
   * @param labels the branches that it is from, and the environments that it is in: {@code in
   *     production}
   */
  public record Version(String number, List<String> labels) {

    /** Copies the list. */
    public Version {
      labels = List.copyOf(labels);
    }

    /** Returns the version, with its labels in parentheses. */
    @Override
    public String toString() {
      return labels.isEmpty() ? number : number + " (" + String.join(", ", labels) + ")";
    }
  }

  /** The outcome for a version of a consumer with a version of a provider. */
  public enum Outcome {
    /** The provider meets the contract. */
    MET,
    /** It does not. */
    UNMET,
    /** It was not verified. */
    UNKNOWN
  }

  /**
   * One version of a consumer with one of its provider.
   *
   * @param consumerVersion the version of the consumer
   * @param providerVersion the version of the provider
   * @param outcome what is known
   * @param at when it was verified
   * @param unmet the clauses that are not met, each with the reason in one line
   */
  public record Cell(
      String consumerVersion,
      String providerVersion,
      Outcome outcome,
      Optional<Instant> at,
      List<String> unmet) {

    /** Copies the list. */
    public Cell {
      unmet = List.copyOf(unmet);
    }
  }

  /**
   * A consumer and a provider: a table with a row for each version of the consumer.
   *
   * @param consumer the consumer
   * @param provider the provider
   * @param consumerVersions its versions with a contract, the latest first
   * @param providerVersions the versions of the provider, the latest first
   * @param cells row by row
   */
  public record Pair(
      String consumer,
      String provider,
      List<Version> consumerVersions,
      List<Version> providerVersions,
      List<Cell> cells) {

    /** Copies the lists. */
    public Pair {
      consumerVersions = List.copyOf(consumerVersions);
      providerVersions = List.copyOf(providerVersions);
      cells = List.copyOf(cells);
    }

    /** Returns the cell of two versions. */
    public Cell cell(Version consumerVersion, Version providerVersion) {
      return cells.stream()
          .filter(it -> it.consumerVersion().equals(consumerVersion.number()))
          .filter(it -> it.providerVersion().equals(providerVersion.number()))
          .findFirst()
          .orElseThrow();
    }
  }
}
