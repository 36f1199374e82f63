// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.Redaction;
import dev.cachette.internal.fields.Durations;
import dev.cachette.internal.misuse.Refusals;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Checks stub files, cassettes and API descriptions: whether they can be read, secrets, duplicates,
 * unreachable stubs, and violations of API descriptions. Immutable; each setting returns a copy.
 */
public final class FileCheck {

  private final Redaction redaction;
  private final @Nullable Duration staleAfter;
  private final Descriptions descriptions;

  private FileCheck(Redaction redaction, @Nullable Duration staleAfter, Descriptions descriptions) {
    this.redaction = redaction;
    this.staleAfter = staleAfter;
    this.descriptions = descriptions;
  }

  /** Returns a check with the default rules for secrets, no age limit and no API description. */
  public static FileCheck defaults() {
    return new FileCheck(Redaction.byDefault(), null, Descriptions.none());
  }

  /**
   * Parses a time as stub files write it: {@code 200ms}, {@code 90d}, or ISO 8601.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  public static Duration time(String text) {
    return Durations.parse(text);
  }

  /** Finds secrets in cassettes by these rules. */
  public FileCheck redaction(Redaction rules) {
    return new FileCheck(Refusals.given("redaction", rules), staleAfter, descriptions);
  }

  /** Reports cassettes that are older. */
  public FileCheck staleAfter(Duration age) {
    return new FileCheck(redaction, Refusals.given("staleAfter", age), descriptions);
  }

  /** Compares requests and responses with API descriptions. */
  public FileCheck describedBy(Descriptions all) {
    return new FileCheck(redaction, staleAfter, Refusals.given("describedBy", all));
  }

  /**
   * Returns what no consumer uses of the API descriptions: operations, responses and members of
   * responses; each at its place there.
   *
   * @param contracts the contract files of all consumers
   * @throws ToolingException if a file is not a contract
   */
  public List<Finding> unused(List<Path> contracts) {
    for (Path file : Refusals.given("contracts", contracts)) {
      if (FileKind.of(file) != FileKind.STUBS || !ContractCheck.isContract(file)) {
        throw new ToolingException(
            file + " is not a contract, so it does not say what a consumer uses.");
      }
    }
    return ContractCheck.unused(contracts, descriptions);
  }

  /**
   * Checks a file, by its {@link FileKind}; returns its problems in the order of their lines.
   *
   * @param skipped is told of entries of a cassette that are skipped
   * @throws ToolingException if there is no such file, or if it is of no kind that can be checked
   * @throws java.io.UncheckedIOException if it cannot be read
   */
  public List<Finding> of(Path file, Consumer<String> skipped) {
    return switch (FileKind.of(file)) {
      case CASSETTE -> CassetteCheck.of(file, redaction, staleAfter, descriptions, skipped);
      case STUBS -> StubFileCheck.of(file, descriptions);
      case DESCRIPTION -> DescriptionFileCheck.of(file);
      case OTHER ->
          throw new ToolingException(
              file
                  + " is neither a cassette (.har), nor a stub file or API description (.yaml,"
                  + " .yml, .json).");
    };
  }
}
