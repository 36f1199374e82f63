// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import dev.cachette.internal.text.NameSuggester;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/** Explains why a path of names selects nothing: {@code /cargo/item/@tons}. */
final class XPathMiss {

  private static final Pattern STEP =
      Pattern.compile("/(@?)(?:([\\w.-]+):)?([\\w.-]+)((?:\\[[0-9]+])?)");

  private XPathMiss() {}

  /** Returns the cause; empty if the expression is more than a path of names. */
  static Optional<String> cause(String expression, Document document) {
    List<Element> reached = new ArrayList<>();
    Matcher step = STEP.matcher(expression);
    int at = 0;
    boolean first = true;
    while (at < expression.length()) {
      if (!step.find(at) || step.start() != at) {
        return Optional.empty();
      }
      List<Element> candidates = first ? List.of(document.getDocumentElement()) : children(reached);
      String name = step.group(3);
      if (!step.group(1).isEmpty()) {
        return attribute(reached, name);
      }
      boolean prefixed = step.group(2) != null;
      List<Element> named =
          candidates.stream().filter(each -> name.equals(each.getLocalName())).toList();
      if (named.isEmpty()) {
        Set<String> names = new LinkedHashSet<>();
        candidates.forEach(each -> names.add(each.getLocalName()));
        return NameSuggester.closest(name, names)
            .map(near -> "there is no <" + name + ">; did you mean \"" + near + "\"?");
      }
      String namespace = named.get(0).getNamespaceURI();
      if (!prefixed && namespace != null) {
        return Optional.of(
            String.format(
                "<%s> is in the namespace %s; declare a prefix for it, as in"
                    + " xpath(\"/x:%s\", ..., Map.of(\"x\", \"%s\"))",
                name, namespace, name, namespace));
      }
      reached.clear();
      reached.addAll(named);
      first = false;
      at = step.end();
    }
    return Optional.empty();
  }

  private static Optional<String> attribute(List<Element> elements, String name) {
    Set<String> names = new LinkedHashSet<>();
    for (Element element : elements) {
      NamedNodeMap attributes = element.getAttributes();
      for (int at = 0; at < attributes.getLength(); at++) {
        names.add(attributes.item(at).getLocalName());
      }
    }
    return NameSuggester.closest(name, names)
        .map(near -> "there is no attribute " + name + "; did you mean \"" + near + "\"?");
  }

  private static List<Element> children(List<Element> parents) {
    List<Element> children = new ArrayList<>();
    for (Element parent : parents) {
      for (Node child = parent.getFirstChild(); child != null; child = child.getNextSibling()) {
        if (child instanceof Element element) {
          children.add(element);
        }
      }
    }
    return children;
  }
}
