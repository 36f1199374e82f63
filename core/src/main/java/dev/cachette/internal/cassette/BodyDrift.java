package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.cassette.Drift.Change;
import dev.cachette.cassette.Drift.Kind;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.xml.XPaths;
import dev.cachette.internal.xml.Xml;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.w3c.dom.Document;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;

/**
 * Finds changes in the shape of a body. The elements of an array are compared as if they were one,
 * so that a longer list is not a change of shape.
 */
public final class BodyDrift {

  private static final String DECLARATIONS = "http://www.w3.org/2000/xmlns/";

  private final Set<String> ignored = new HashSet<>();

  /** By kind and place: one change is enough for all elements of an array. */
  private final Map<String, Change> changes = new LinkedHashMap<>();

  private BodyDrift() {}

  /** Returns the changes from one value to another, except at the ignored paths. */
  public static List<Change> ofJson(JsonNode before, JsonNode after, List<String> ignoredPaths) {
    BodyDrift drift = new BodyDrift();
    for (String path : ignoredPaths) {
      JsonQuery query = JsonQuery.parse(path);
      query.find(before).forEach(found -> drift.ignored.add(found.path()));
      query.find(after).forEach(found -> drift.ignored.add(found.path()));
    }
    drift.compare(Located.root(before), Located.root(after), "$");
    return List.copyOf(drift.changes.values());
  }

  private void compare(Located before, Located after, String place) {
    JsonNode old = before.node();
    JsonNode now = after.node();
    if (ignored.contains(before.path()) || ignored.contains(after.path())) {
      return;
    }
    if (!type(old).equals(type(now))) {
      add(new Change(Kind.TYPE, place, type(old), type(now)));
    } else if (old.isObject()) {
      compareMembers(before, after, place);
    } else if (old.isArray()) {
      compareElements(before, after, place);
    } else if (!old.equals(now)) {
      add(new Change(Kind.VALUE, place, shown(old), shown(now)));
    }
  }

  private void add(Change change) {
    changes.putIfAbsent(change.kind() + " " + change.place(), change);
  }

  private void compareMembers(Located before, Located after, String place) {
    Set<String> names = new LinkedHashSet<>();
    before.node().fieldNames().forEachRemaining(names::add);
    after.node().fieldNames().forEachRemaining(names::add);
    for (String name : names) {
      Located old = before.member(name);
      Located now = after.member(name);
      String member = place + old.path().substring(before.path().length());
      if (ignored.contains(old.path()) || ignored.contains(now.path())) {
        continue;
      }
      if (now.node().isMissingNode()) {
        add(new Change(Kind.GONE, member, type(old.node()), ""));
      } else if (old.node().isMissingNode()) {
        add(new Change(Kind.NEW, member, "", type(now.node())));
      } else {
        compare(old, now, member);
      }
    }
  }

  private void compareElements(Located before, Located after, String place) {
    int old = before.node().size();
    int now = after.node().size();
    if (old != now) {
      add(new Change(Kind.VALUE, place, old + " elements", now + " elements"));
    }
    for (int at = 0; at < Math.min(1, old) * now; at++) {
      compare(before.element(Math.min(at, old - 1)), after.element(at), place + "[*]");
    }
  }

  /**
   * Adds the changes from one XML document to another.
   *
   * @return false if one of them is not XML
   */
  public static boolean addXml(
      List<Change> into, Content before, Content after, List<String> ignoredExpressions) {
    try {
      Map<String, String> old = elements(Xml.parse(before.bytes()), ignoredExpressions);
      Map<String, String> now = elements(Xml.parse(after.bytes()), ignoredExpressions);
      old.forEach(
          (path, text) -> {
            if (!now.containsKey(path)) {
              into.add(new Change(Kind.GONE, path, kind(path), ""));
            } else if (!now.get(path).equals(text)) {
              into.add(
                  new Change(Kind.VALUE, path, Quoting.quote(text), Quoting.quote(now.get(path))));
            }
          });
      now.keySet().stream()
          .filter(path -> !old.containsKey(path))
          .forEach(path -> into.add(new Change(Kind.NEW, path, "", kind(path))));
      return true;
    } catch (Xml.MalformedXml other) {
      return false;
    }
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

  private static String type(JsonNode node) {
    return switch (node.getNodeType()) {
      case STRING -> "string";
      case NUMBER -> "number";
      case BOOLEAN -> "boolean";
      case NULL -> "null";
      case ARRAY -> "array";
      default -> "object";
    };
  }

  private static String shown(JsonNode node) {
    return node.isTextual() ? Quoting.quote(node.asText()) : node.toString();
  }
}
