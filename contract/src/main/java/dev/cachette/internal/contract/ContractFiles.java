// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.stubfile.StubDeclaration;
import dev.cachette.internal.stubfile.StubFile;
import dev.cachette.internal.stubfile.WithoutFiles;
import dev.cachette.internal.yaml.Node;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.stubfile.StubFileProblem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

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
    StubFile file = StubFile.read(name, text, new WithoutFiles());
    List<StubFileProblem> problems = new ArrayList<>(file.problems());
    Optional<Node> root = file.tree();
    if (problems.isEmpty() && root.isPresent()) {
      problems.addAll(missing(name, root.get(), file.stubs()));
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
        .map(root -> clauses(root).stream().map(Node::line).toList())
        .orElse(List.of());
  }

  /** Returns what a contract needs besides what a stub file does. */
  private static List<StubFileProblem> missing(
      String file, Node root, List<StubDeclaration> stubs) {
    List<StubFileProblem> problems = new ArrayList<>();
    List<Node.Member> members = root.members() == null ? List.of() : root.members();
    if (members.stream().noneMatch(it -> it.name().equals("contract"))) {
      problems.add(
          problem(
              file,
              root,
              "this is a stub file, but not a contract. Fix: contract: { consumer: ..., provider:"
                  + " ..., origin: ... }"));
      return problems;
    }
    Set<String> names = new HashSet<>();
    List<Node> nodes = clauses(root);
    for (int at = 0; at < nodes.size(); at++) {
      clause(file, nodes.get(at), stubs.get(at).spec(), names, problems);
    }
    return problems;
  }

  private static List<Node> clauses(Node root) {
    List<Node.Member> members = root.members() == null ? List.of() : root.members();
    return members.stream()
        .filter(it -> it.name().equals("stubs"))
        .map(Node.Member::value)
        .flatMap(it -> it.elements() == null ? Stream.of(it) : it.elements().stream())
        .toList();
  }

  private static void clause(
      String file, Node node, StubSpec stub, Set<String> names, List<StubFileProblem> problems) {
    for (String key : OF_A_CLAUSE) {
      if (!stub.extensions().containsKey(key)) {
        problems.add(problem(file, node, "a clause needs its " + key + "."));
      }
    }
    String name = stub.reference().name();
    if (!names.add(name)) {
      problems.add(problem(file, node, "there is another clause \"" + name + "\"."));
    }
    if (!(stub.order().answers().get(0) instanceof ResponseAnswer)) {
      problems.add(problem(file, node, "the answer of a clause is a response."));
    }
    try {
      SampleRequest.read(stub.extensions().get("example"));
    } catch (IllegalArgumentException invalid) {
      problems.add(problem(file, node, String.valueOf(invalid.getMessage())));
    }
  }

  private static StubFileProblem problem(String file, Node at, String message) {
    return new StubFileProblem(file, at.line(), at.column(), at.path(), message);
  }
}
