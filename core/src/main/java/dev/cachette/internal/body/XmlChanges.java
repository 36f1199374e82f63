// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.xml.XPaths;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.w3c.dom.Document;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/**
 * Changes from one XML document to another. Elements at the same path are compared as if they were
 * one.
 */
final class XmlChanges {

  private static final String DECLARATIONS = "http://www.w3.org/2000/xmlns/";

  private XmlChanges() {}

  /** Returns the changes, except at the nodes that the expressions select. */
  static List<BodyChange> of(Document before, Document after, List<String> ignoredExpressions) {
    Map<String, String> old = elements(before, ignoredExpressions);
    Map<String, String> now = elements(after, ignoredExpressions);
    List<BodyChange> changes = new ArrayList<>();
    old.forEach(
        (path, text) -> {
          if (!now.containsKey(path)) {
            changes.add(BodyChange.gone(path, kind(path)));
          } else if (!now.get(path).equals(text)) {
            changes.add(
                new BodyChange(
                    BodyChange.Kind.VALUE,
                    path,
                    Quoting.quote(text),
                    Quoting.quote(now.get(path)),
                    Ignored.xpath(inAnyNamespace(path))));
          }
        });
    now.keySet().stream()
        .filter(path -> !old.containsKey(path))
        .forEach(path -> changes.add(BodyChange.fresh(path, kind(path))));
    return changes;
  }

  /**
   * Returns the texts of all elements and attributes by path; elements with the same path share an
   * entry.
   */
  private static Map<String, String> elements(Document document, List<String> ignoredExpressions) {
    Set<Node> left = new HashSet<>();
    ignoredExpressions.forEach(
        expression -> left.addAll(new XPaths(expression, Map.of()).nodes(document)));
    Map<String, String> elements = new LinkedHashMap<>();
    collect(document.getDocumentElement(), "", left, elements);
    return elements;
  }

  private static void collect(
      Node element, String parent, Set<Node> ignored, Map<String, String> into) {
    if (ignored.contains(element)) {
      return;
    }
    String path = parent + "/" + element.getLocalName();
    List<Node> children = new ArrayList<>();
    StringBuilder text = new StringBuilder();
    for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
      if (child.getNodeType() == Node.ELEMENT_NODE) {
        children.add(child);
      } else if (child.getNodeValue() != null) {
        text.append(child.getNodeValue());
      }
    }
    String own = children.isEmpty() ? text.toString().strip() : "";
    into.merge(path, own, (one, other) -> one.equals(other) ? one : one + ", " + other);
    NamedNodeMap attributes = element.getAttributes();
    for (int at = 0; at < attributes.getLength(); at++) {
      Node attribute = attributes.item(at);
      boolean declaration = DECLARATIONS.equals(attribute.getNamespaceURI());
      if (!declaration && !ignored.contains(attribute)) {
        into.merge(
            path + "/@" + attribute.getLocalName(),
            attribute.getNodeValue(),
            (one, other) -> one.equals(other) ? one : one + ", " + other);
      }
    }
    children.forEach(child -> collect(child, path, ignored, into));
  }

  private static String kind(String path) {
    return path.contains("/@") ? "attribute" : "element";
  }

  /** Returns an XPath for a path of names, whatever their prefixes. */
  static String inAnyNamespace(String path) {
    return Arrays.stream(path.substring(1).split("/"))
        .map(step -> step.replaceAll("\\[\\d+\\]$", "").replaceAll("^(@?).*:", "$1"))
        .map(
            name ->
                name.startsWith("@")
                    ? "/@*[local-name()='" + name.substring(1) + "']"
                    : "/*[local-name()='" + name + "']")
        .collect(Collectors.joining());
  }
}
