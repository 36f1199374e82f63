package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One value of a description, and where it stands.
 *
 * @param document the file
 * @param pointer the way to it in the file, as a JSON Pointer
 * @param json the value; missing if there is none
 */
record Element(Document document, String pointer, JsonNode json) {

  private static final int LONGEST_CHAIN = 32;

  boolean isThere() {
    return !json.isMissingNode();
  }

  /** A member as it stands there; it may be a reference. */
  Element raw(String name) {
    String escaped = name.replace("~", "~0").replace("/", "~1");
    JsonNode member = json.isObject() ? json.path(name) : MissingNode.getInstance();
    return new Element(document, pointer + "/" + escaped, member);
  }

  /** A member; where that is a reference, what it leads to. */
  Element get(String name) {
    return raw(name).followed();
  }

  /** What a reference leads to; this, if it is none. */
  Element followed() {
    Element reached = this;
    for (int at = 0; at < LONGEST_CHAIN; at++) {
      JsonNode reference = reached.json.path("$ref");
      if (!reference.isTextual()) {
        return reached;
      }
      reached = reached.document.resolve(reference.asText(), reached);
    }
    throw malformed("it refers to itself.");
  }

  /** What the reference that this is leads to, which may be one itself. */
  Element followedOnce() {
    return document.resolve(json.get("$ref").asText(), this);
  }

  /** A member that is a text, or a number or truth value as it is written. */
  Optional<String> text(String name) {
    JsonNode member = json.path(name);
    return member.isValueNode() && !member.isNull()
        ? Optional.of(member.asText())
        : Optional.empty();
  }

  boolean isSet(String name) {
    return json.path(name).asBoolean(false);
  }

  /** Its members, references followed. */
  Map<String, Element> members() {
    Map<String, Element> members = new LinkedHashMap<>();
    json.fieldNames().forEachRemaining(name -> members.put(name, get(name)));
    return members;
  }

  /** Its elements, as they stand there. */
  List<Element> elements() {
    List<Element> elements = new ArrayList<>();
    if (json.isArray()) {
      for (int at = 0; at < json.size(); at++) {
        elements.add(new Element(document, pointer + "/" + at, json.get(at)));
      }
    }
    return elements;
  }

  MalformedDescription.Place place() {
    return new MalformedDescription.Place(document.label(), document.line(pointer), pointer);
  }

  /** What this asks for, and where it does. */
  String asks(String what) {
    return what + "   (" + place() + ")";
  }

  MalformedDescription malformed(String message) {
    return new MalformedDescription(place(), message);
  }
}
