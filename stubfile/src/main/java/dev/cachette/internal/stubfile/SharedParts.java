// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.yaml.Node;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Parts of a stub file that several stubs use: the values of {@code shared}, wherever {@code $ref:
 * "#/shared/name"} is. Members beside it are added to the part, or replace those of the same name.
 */
final class SharedParts {

  static final String KEY = "shared";

  static final String REFERENCE = "$ref";

  /** Said of any other reference where a part is expected. */
  static final String NOT_A_REFERENCE =
      "$ref must be \"#/shared/NAME\", the name of a part in shared in this file.";

  private static final String BEGINNING = "#/" + KEY + "/";

  /** As for YAML aliases: a few lines could stand for more than memory holds. */
  private static final int MOST_VALUES = 1_000_000;

  private final Problems problems;
  private final Map<String, Node> parts = new LinkedHashMap<>();

  /** The parts that are being resolved, outermost first. */
  private final Set<String> open = new LinkedHashSet<>();

  private int values;

  private SharedParts(Problems problems) {
    this.problems = problems;
  }

  /** Returns the tree of a file with its parts filled in. */
  static Node filledIn(Node root, Problems problems) {
    Node shared = member(root, KEY);
    if (shared == null) {
      return root;
    }
    SharedParts parts = new SharedParts(problems);
    if (shared.members() == null) {
      problems.add(shared, "expected names with values, found " + shared.kind());
      return root;
    }
    shared.members().forEach(part -> parts.parts.put(part.name(), part.value()));
    List<Node.Member> members = new ArrayList<>();
    for (Node.Member each : root.members()) {
      members.add(
          each.name().equals(KEY)
              ? each
              : new Node.Member(each.name(), each.key(), parts.filledIn(each.value())));
    }
    return new Node(root.line(), root.column(), root.trail(), null, members, null);
  }

  private static @Nullable Node member(Node node, String name) {
    return node.members() == null
        ? null
        : node.members().stream()
            .filter(it -> it.name().equals(name))
            .map(Node.Member::value)
            .findFirst()
            .orElse(null);
  }

  private Node filledIn(Node node) {
    values++;
    if (values > MOST_VALUES) {
      if (values == MOST_VALUES + 1) {
        problems.add(node, "it expands to more than " + MOST_VALUES + " values.");
      }
      return node;
    }
    if (node.members() != null) {
      Node reference = member(node, REFERENCE);
      boolean ours =
          reference != null && reference.isText() && reference.text().startsWith(BEGINNING);
      return ours ? part(node, reference) : withMembers(node, filledIn(node.members()));
    }
    if (node.elements() != null) {
      List<Node> elements = node.elements().stream().map(this::filledIn).toList();
      return new Node(node.line(), node.column(), node.trail(), null, null, elements);
    }
    return node;
  }

  private List<Node.Member> filledIn(List<Node.Member> members) {
    return members.stream()
        .map(it -> new Node.Member(it.name(), it.key(), filledIn(it.value())))
        .toList();
  }

  private static Node withMembers(Node node, List<Node.Member> members) {
    return new Node(node.line(), node.column(), node.trail(), null, members, null);
  }

  private Node part(Node node, Node reference) {
    String name = reference.text().substring(BEGINNING.length());
    Node part = parts.get(name.replace("~1", "/").replace("~0", "~"));
    if (part == null) {
      String near = NameSuggester.question(name, parts.keySet());
      problems.add(
          reference,
          String.format(
              "there is no \"%s\" in shared.%s Shared: %s.",
              name, near, String.join(", ", NameSuggester.closestFirst(name, parts.keySet()))));
      return part(node);
    }
    if (!open.add(name)) {
      problems.add(reference, "\"" + name + "\" contains itself.");
      return part(node);
    }
    Node filled = filledIn(part);
    open.remove(name);
    return node.members().size() == 1 ? filled : extended(filled, node, reference);
  }

  /** Returns what is beside a reference that cannot be used. */
  private Node part(Node node) {
    return withMembers(
        node,
        filledIn(node.members().stream().filter(it -> !it.name().equals(REFERENCE)).toList()));
  }

  private Node extended(Node part, Node node, Node reference) {
    if (part.members() == null) {
      problems.add(
          reference, "the shared part is " + part.kind() + ", so nothing can be added beside it.");
      return part(node);
    }
    Map<String, Node.Member> members = new LinkedHashMap<>();
    part.members().forEach(it -> members.put(it.name(), it));
    part(node).members().forEach(it -> members.put(it.name(), it));
    return withMembers(node, List.copyOf(members.values()));
  }
}
