// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.stubfile.StubFile;
import dev.cachette.internal.stubfile.WithoutFiles;
import dev.cachette.internal.yaml.Node;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.stubfile.StubFileProblem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/** Reads the text of contract files. */
public final class ContractFiles {

  private static final List<String> OF_A_CLAUSE = List.of("example", "shape");

  private ContractFiles() {}

  /**
   * Reads a contract file.
   *
   * @param name its name in messages
   * @throws StubFileException with all problems, if it is invalid
   */
  public static Contract read(String name, String text) {
    List<StubFileProblem> problems =
        new ArrayList<>(StubFile.read(name, text, new WithoutFiles()).problems());
    Optional<Node> root = Trees.read(text, (line, column, path, message) -> {});
    if (problems.isEmpty() && root.isPresent()) {
      problems.addAll(missing(name, root.get()));
    }
    if (!problems.isEmpty() || root.isEmpty()) {
      throw new StubFileException(problems);
    }
    return Contract.read(root.get().json());
  }

  /** Returns true if the text of a stub file is that of a contract. */
  public static boolean isContract(String text) {
    return Trees.read(text, (line, column, path, message) -> {})
        .map(Node::json)
        .filter(JsonNode::isObject)
        .filter(it -> it.has("contract"))
        .isPresent();
  }

  /** Returns the lines at which the clauses of a contract file begin. */
  public static List<Integer> lines(String text) {
    return Trees.read(text, (line, column, path, message) -> {})
        .map(Node::members)
        .orElse(List.of())
        .stream()
        .filter(it -> it.name().equals("stubs"))
        .map(Node.Member::value)
        .map(Node::elements)
        .filter(Objects::nonNull)
        .flatMap(List::stream)
        .map(Node::line)
        .toList();
  }

  /** Returns what a contract needs besides what a stub file does. */
  private static List<StubFileProblem> missing(String file, Node root) {
    List<StubFileProblem> problems = new ArrayList<>();
    JsonNode json = root.json();
    if (!json.has("contract")) {
      problems.add(
          problem(
              file,
              root,
              "this is a stub file, but not a contract. Fix: contract: { consumer: ..., provider:"
                  + " ..., origin: ... }"));
      return problems;
    }
    Set<String> names = new HashSet<>();
    for (Node.Member member : root.members() == null ? List.<Node.Member>of() : root.members()) {
      if (member.name().equals("stubs") && member.value().elements() != null) {
        member.value().elements().forEach(it -> clause(file, it, names, problems));
      }
    }
    return problems;
  }

  private static void clause(
      String file, Node node, Set<String> names, List<StubFileProblem> problems) {
    JsonNode clause = node.json();
    for (String key : OF_A_CLAUSE) {
      if (!clause.has(key)) {
        problems.add(problem(file, node, "a clause needs its " + key + "."));
      }
    }
    String name = clause.path("name").asText(clause.path("request").asText());
    if (!names.add(name)) {
      problems.add(problem(file, node, "there is another clause \"" + name + "\"."));
    }
    try {
      Clause read = Clause.read(clause);
      ClauseAnswer.response(read.answer());
    } catch (IllegalArgumentException invalid) {
      problems.add(problem(file, node, String.valueOf(invalid.getMessage())));
    }
  }

  private static StubFileProblem problem(String file, Node at, String message) {
    return new StubFileProblem(file, at.line(), at.column(), at.path(), message);
  }
}
