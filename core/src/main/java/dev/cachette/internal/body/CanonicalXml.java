// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import dev.cachette.internal.xml.XPaths;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.w3c.dom.Document;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/**
 * Canonical XML text: equivalent documents have equal texts; prefixes, the order of attributes,
 * comments, and white space at the ends of texts do not count.
 */
final class CanonicalXml {

  private static final String DECLARATIONS = "http://www.w3.org/2000/xmlns/";

  private final Set<Node> ignored = Collections.newSetFromMap(new IdentityHashMap<>());
  private final StringBuilder text = new StringBuilder();

  private CanonicalXml(Document document, List<String> expressions) {
    for (String expression : expressions) {
      ignored.addAll(new XPaths(expression, Map.of()).nodes(document));
    }
  }

  /** Returns the text, without the elements and attributes that the expressions select. */
  static String of(Document document, List<String> ignoredExpressions) {
    CanonicalXml canonical = new CanonicalXml(document, ignoredExpressions);
    canonical.append(document.getDocumentElement());
    return canonical.text.toString();
  }

  private void append(Node element) {
    if (ignored.contains(element)) {
      return;
    }
    text.append('<').append(nameOf(element));
    attributes(element)
        .forEach((name, value) -> text.append(' ').append(name).append('=').append(value));
    text.append('>');
    StringBuilder between = new StringBuilder();
    for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
      if (child.getNodeType() == Node.ELEMENT_NODE) {
        appendText(between);
        append(child);
      } else if (child.getNodeType() == Node.TEXT_NODE
          || child.getNodeType() == Node.CDATA_SECTION_NODE) {
        between.append(child.getNodeValue());
      }
    }
    appendText(between);
    text.append("</>");
  }

  private void appendText(StringBuilder between) {
    text.append(between.toString().strip());
    between.setLength(0);
  }

  private Map<String, String> attributes(Node element) {
    Map<String, String> sorted = new TreeMap<>();
    NamedNodeMap attributes = element.getAttributes();
    for (int at = 0; at < attributes.getLength(); at++) {
      Node attribute = attributes.item(at);
      if (!DECLARATIONS.equals(attribute.getNamespaceURI()) && !ignored.contains(attribute)) {
        sorted.put(nameOf(attribute), attribute.getNodeValue());
      }
    }
    return sorted;
  }

  private static String nameOf(Node node) {
    return node.getNamespaceURI() == null
        ? node.getNodeName()
        : "{" + node.getNamespaceURI() + "}" + node.getLocalName();
  }
}
