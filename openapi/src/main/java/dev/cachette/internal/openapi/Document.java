// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import dev.cachette.internal.uri.Percent;
import dev.cachette.internal.yaml.Node;
import dev.cachette.internal.yaml.Trees;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** One parsed file of an API description; referenced files are read on demand. */
final class Document {

  private final DescriptionFile file;

  /** Guarded by itself. */
  private final Map<String, Document> all;

  private final Node tree;
  private final JsonNode json;

  private Document(DescriptionFile file, Map<String, Document> all) {
    this.file = file;
    this.all = all;
    this.tree =
        Trees.read(file.text(), this::refuse)
            .orElseThrow(() -> malformed(1, "the file is empty. Fix: begin with openapi: 3.1.0"));
    this.json = tree.json();
  }

  /**
   * Parses a file.
   *
   * @throws MalformedDescription if it is neither YAML nor JSON
   */
  static Document read(DescriptionFile file) {
    Map<String, Document> all = new HashMap<>();
    Document document = new Document(file, all);
    all.put(file.label(), document);
    return document;
  }

  private void refuse(int line, int column, String path, String message) {
    throw malformed(line, message);
  }

  private MalformedDescription malformed(int line, String message) {
    return new MalformedDescription(
        new MalformedDescription.Place(file.label(), line, ""), message);
  }

  String label() {
    return file.label();
  }

  List<String> files() {
    synchronized (all) {
      return all.keySet().stream().sorted().toList();
    }
  }

  Element root() {
    return new Element(this, "", json);
  }

  /** Returns the target of a reference, which may be a reference itself. */
  Element resolve(String reference, Element from) {
    int hash = reference.indexOf('#');
    String name = hash < 0 ? reference : reference.substring(0, hash);
    String fragment = hash < 0 ? "" : Percent.decode(reference.substring(hash + 1));
    Document there = name.isEmpty() ? this : other(name, from);
    boolean isPointer = fragment.isEmpty() || fragment.startsWith("/");
    JsonNode found = isPointer ? there.json.at(fragment) : MissingNode.getInstance();
    if (found.isMissingNode()) {
      throw from.malformed(
          String.format(
              "nothing found at \"%s\". Fix: a reference has a JSON Pointer, such as"
                  + " #/components/schemas/Booking.",
              reference));
    }
    return new Element(there, fragment, found);
  }

  private Document other(String name, Element from) {
    if (name.contains("://")) {
      throw from.malformed(
          "\""
              + name
              + "\" is on the network, which is not accessed. Fix: store the file next to this"
              + " one.");
    }
    try {
      DescriptionFile sibling = file.sibling(Percent.decode(name));
      synchronized (all) {
        Document known = all.get(sibling.label());
        if (known == null) {
          known = new Document(sibling, all);
          all.put(sibling.label(), known);
        }
        return known;
      }
    } catch (MalformedDescription malformed) {
      throw malformed;
    } catch (IllegalArgumentException missing) {
      throw from.malformed(String.valueOf(missing.getMessage()));
    }
  }

  /** Returns the line of a value, or of the closest one around it. */
  int line(String pointer) {
    Node at = tree;
    if (!pointer.isEmpty()) {
      for (String step : pointer.substring(1).split("/", -1)) {
        Optional<Node> next = step(at, step.replace("~1", "/").replace("~0", "~"));
        if (next.isEmpty()) {
          return at.line();
        }
        at = next.get();
      }
    }
    return at.line();
  }

  private static Optional<Node> step(Node from, String name) {
    List<Node.Member> members = from.members();
    if (members != null) {
      return members.stream()
          .filter(member -> member.name().equals(name))
          // Use the line of the key: a value may begin on the next line.
          .map(it -> it.value().startingAt(it.key()))
          .findFirst();
    }
    List<Node> elements = from.elements();
    return elements != null && name.matches("\\d{1,9}") && Integer.parseInt(name) < elements.size()
        ? Optional.of(elements.get(Integer.parseInt(name)))
        : Optional.empty();
  }
}
