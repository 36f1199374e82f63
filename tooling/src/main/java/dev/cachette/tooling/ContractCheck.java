// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.http.Request;
import dev.cachette.internal.contract.Clause;
import dev.cachette.internal.contract.Contract;
import dev.cachette.internal.contract.ContractFiles;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.openapi.NeededResponse;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import dev.cachette.result.StubReference;
import dev.cachette.stubfile.StubFileException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Compares contracts with the API description of their provider, without a call. */
final class ContractCheck {

  private ContractCheck() {}

  /** Returns true if a stub file is a contract. */
  static boolean isContract(Path file) {
    try {
      return ContractFiles.isContract(text(file));
    } catch (UncheckedIOException noText) {
      // The reader of stub files says why.
      return false;
    }
  }

  private static String text(Path file) {
    return String.join("\n", FileKind.lines(file)) + "\n";
  }

  /** Returns the problems of a contract file, and what its provider does not promise. */
  static List<Finding> of(Path file, Descriptions descriptions) {
    String text = text(file);
    Contract contract;
    try {
      contract = ContractFiles.read(file.toString(), text);
    } catch (StubFileException wrong) {
      return StubFileCheck.problems(wrong);
    }
    Optional<Description> description = descriptions.at(contract.origin());
    if (description.isEmpty()) {
      requireNone(file, contract, descriptions);
      return List.of();
    }
    List<Integer> lines = ContractFiles.lines(text);
    List<Finding> findings = new ArrayList<>();
    for (int at = 0; at < contract.clauses().size(); at++) {
      int line = lines.get(at);
      unpromised(contract.clauses().get(at), description.get())
          .forEach(it -> findings.add(new Finding(file.toString(), line, 1, "", it)));
    }
    return findings;
  }

  /** A description of another service says nothing of this one, but may be meant. */
  private static void requireNone(Path file, Contract contract, Descriptions descriptions) {
    if (!descriptions.origins().isEmpty()) {
      throw new ToolingException(
          String.format(
              "%s is a contract with %s, but the API descriptions are for %s. Fix: --openapi"
                  + " %s=FILE",
              file,
              contract.origin(),
              String.join(", ", descriptions.origins()),
              contract.origin()));
    }
  }

  private static List<String> unpromised(Clause clause, Description description) {
    Request request = clause.example().request();
    String name = "\"" + clause.name() + "\"";
    List<String> all =
        new ArrayList<>(
            Misfits.of(
                name + ": the API description does not allow the request",
                description.refusals(request)));
    for (Check check : description.unpromised(request, needed(clause))) {
      for (Difference difference : check.differences()) {
        all.add(
            String.format(
                "%s needs %s: %s. By the API description, %s.",
                name,
                difference.at().isEmpty() ? check.condition() : difference.at(),
                difference.expected(),
                difference.actual().replace("   (", " (")));
      }
    }
    return all;
  }

  private static NeededResponse needed(Clause clause) {
    return new NeededResponse(
        clause.status(),
        clause.shape().mediaType(),
        clause.shape().headers().keySet(),
        clause.shape().body());
  }

  /** Returns what no consumer uses of the API descriptions, each at its place there. */
  static List<Finding> unused(List<Path> files, Descriptions descriptions) {
    Map<String, Map<Request, List<NeededResponse>>> uses = new LinkedHashMap<>();
    for (Path file : files) {
      Contract contract = ContractFiles.read(file.toString(), text(file));
      Map<Request, List<NeededResponse>> own =
          uses.computeIfAbsent(contract.origin(), it -> new LinkedHashMap<>());
      for (Clause clause : contract.clauses()) {
        own.computeIfAbsent(clause.example().request(), it -> new ArrayList<>())
            .add(needed(clause));
      }
    }
    List<Finding> findings = new ArrayList<>();
    for (String origin : descriptions.origins()) {
      for (StubReference unused :
          descriptions.at(origin).orElseThrow().unused(uses.getOrDefault(origin, Map.of()))) {
        findings.add(
            new Finding(
                unused.file(), unused.line(), 1, "", unused.name() + ": no consumer uses it."));
      }
    }
    return findings;
  }
}
