// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import dev.cachette.internal.finding.TextFinding;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.w3c.dom.Element;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/**
 * Compares XML by content: namespaces instead of prefixes, attributes in any order; ignores
 * comments, and white space between elements and at the ends of text.
 */
public final class XmlComparison {

  private final List<Difference> found = new ArrayList<>();

  private XmlComparison() {}

  /** Returns the differences by path; empty if the documents are equivalent. */
  public static List<Difference> differences(Element expected, Element actual) {
    XmlComparison comparison = new XmlComparison();
    comparison.compare(expected, actual, "/" + actual.getNodeName());
    return comparison.found;
  }

  private void compare(Element want, Element have, String path) {
    TimeLimit.check();
    if (!name(want).equals(name(have))) {
      Optional<String> cause =
          local(want).equals(local(have))
              ? Optional.of("the same name in another namespace")
              : Optional.empty();
      found.add(Difference.of(shown(want), shown(have)).at(path).because(cause));
      return;
    }
    compareAttributes(want, have, path);
    List<Element> wanted = children(want);
    List<Element> actual = children(have);
    if (wanted.isEmpty() && actual.isEmpty()) {
      compareText(want.getTextContent().strip(), have.getTextContent().strip(), path);
    } else {
      compareChildren(wanted, actual, path);
      compareMixedText(want, have, path);
    }
  }

  private void compareAttributes(Element want, Element have, String path) {
    Map<String, String> wanted = attributes(want);
    Map<String, String> actual = attributes(have);
    wanted.forEach(
        (name, value) -> {
          String place = path + "/@" + name;
          if (actual.containsKey(name)) {
            compareText(value, actual.get(name), place);
          } else {
            Optional<String> near = NameSuggester.hint("an attribute", name, actual.keySet());
            found.add(
                Difference.of(Quoting.quote(Masking.value(name, value)), Difference.MISSING)
                    .at(place)
                    .because(near));
          }
        });
    actual.forEach(
        (name, value) -> {
          if (!wanted.containsKey(name)) {
            found.add(
                new Difference(
                    path + "/@" + name,
                    "no such attribute",
                    Quoting.quote(Masking.value(name, value)),
                    Optional.empty()));
          }
        });
  }

  private void compareChildren(List<Element> wanted, List<Element> actual, String path) {
    int both = Math.min(wanted.size(), actual.size());
    Map<String, Integer> seen = new LinkedHashMap<>();
    for (int at = 0; at < both; at++) {
      Element have = actual.get(at);
      compare(wanted.get(at), have, path + step(have.getNodeName(), seen));
    }
    if (wanted.size() > both) {
      Element lacking = wanted.get(both);
      Optional<String> near =
          NameSuggester.hint(
              "an element", local(lacking), actual.stream().map(XmlComparison::local).toList());
      found.add(
          Difference.of(shown(lacking), Difference.MISSING)
              .at(path + step(local(lacking), seen))
              .because(near));
    }
    for (Element surplus : actual.subList(both, actual.size())) {
      found.add(
          new Difference(
              path + step(surplus.getNodeName(), seen),
              "no such element",
              shown(surplus),
              Optional.empty()));
    }
  }

  /** Returns the step to the next child of this name. */
  private static String step(String name, Map<String, Integer> seen) {
    int number = seen.merge(name, 1, Integer::sum);
    return "/" + name + (number > 1 ? "[" + number + "]" : "");
  }

  /** Compares the text between the children, if there are as many of them. */
  private void compareMixedText(Element want, Element have, String path) {
    List<String> wanted = between(want);
    List<String> actual = between(have);
    for (int at = 0; wanted.size() == actual.size() && at < wanted.size(); at++) {
      compareText(wanted.get(at), actual.get(at), path + "/text()[" + (at + 1) + "]");
    }
  }

  /** Returns the text before, between and after the children. */
  private static List<String> between(Element element) {
    List<String> texts = new ArrayList<>();
    StringBuilder text = new StringBuilder();
    for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
      if (child instanceof Element) {
        texts.add(text.toString().strip());
        text.setLength(0);
      } else if (child.getNodeValue() != null) {
        text.append(child.getNodeValue());
      }
    }
    texts.add(text.toString().strip());
    return texts;
  }

  private void compareText(String want, String have, String path) {
    if (!want.equals(have)) {
      String name = path.replaceAll(".*[/@:]|\\[[0-9]+]", "");
      found.add(TextFinding.of(path, want, have, text -> Masking.value(name, text)));
    }
  }

  private static List<Element> children(Element parent) {
    List<Element> children = new ArrayList<>();
    for (Node child = parent.getFirstChild(); child != null; child = child.getNextSibling()) {
      if (child instanceof Element element) {
        children.add(element);
      }
    }
    return children;
  }

  private static Map<String, String> attributes(Element element) {
    Map<String, String> attributes = new LinkedHashMap<>();
    NamedNodeMap all = element.getAttributes();
    for (int at = 0; at < all.getLength(); at++) {
      Node attribute = all.item(at);
      boolean declaration = "http://www.w3.org/2000/xmlns/".equals(attribute.getNamespaceURI());
      if (!declaration) {
        attributes.put(name(attribute), attribute.getNodeValue());
      }
    }
    return attributes;
  }

  /** Returns the local name with its namespace, as {@code {urn:x}vessel}. */
  private static String name(Node node) {
    return (node.getNamespaceURI() == null ? "" : "{" + node.getNamespaceURI() + "}") + local(node);
  }

  private static String local(Node node) {
    return node.getLocalName();
  }

  private static String shown(Element element) {
    String namespace = element.getNamespaceURI();
    return "<"
        + local(element)
        + ">"
        + (namespace == null ? " in no namespace" : " in namespace " + namespace);
  }
}
