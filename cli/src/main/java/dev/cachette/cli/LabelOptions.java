// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.contract.ContractStore.Labels;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The labels of a version in a store of contracts. */
final class LabelOptions {

  @Option(
      names = "--branch",
      paramLabel = "NAME",
      description = "The branch that the version is from.")
  private @Nullable String branch;

  @Option(
      names = "--environment",
      paramLabel = "NAME",
      description = "The environment that the version is in from now on: production.")
  private @Nullable String environment;

  Labels labels() {
    try {
      return new Labels(Optional.ofNullable(branch), Optional.ofNullable(environment));
    } catch (IllegalArgumentException malformed) {
      throw new WrongUsage(String.valueOf(malformed.getMessage()));
    }
  }

  boolean areNone() {
    return branch == null && environment == null;
  }
}
