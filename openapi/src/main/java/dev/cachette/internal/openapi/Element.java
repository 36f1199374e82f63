// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One value of an API description, with its place.
 *
 * @param document the file
 * @param pointer its JSON Pointer in the file
 * @param json the value; missing if there is none
 */
record Element(Document document, String pointer, JsonNode json) {

  private static final int LONGEST_CHAIN = 32;

  boolean isThere() {
    return !json.isMissingNode();
  }

  /** Returns a member as written; it may be a reference. */
  Element raw(String name) {
    String escaped = name.replace("~", "~0").replace("/", "~1");
    JsonNode member = json.isObject() ? json.path(name) : MissingNode.getInstance();
    return new Element(document, pointer + "/" + escaped, member);
  }

  /** Returns a member, with references resolved. */
  Element get(String name) {
    return raw(name).followed();
  }

  /** Returns the target, if this is a reference; otherwise this. */
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

  /** Returns the target of this reference, which may be a reference itself. */
  Element followedOnce() {
    return document.resolve(json.get("$ref").asText(), this);
  }

  /** Returns a member that is a scalar, as text. */
  Optional<String> text(String name) {
    JsonNode member = json.path(name);
    return member.isValueNode() && !member.isNull()
        ? Optional.of(member.asText())
        : Optional.empty();
  }

  boolean isSet(String name) {
    return json.path(name).asBoolean(false);
  }

  /** Returns its members, with references resolved. */
  Map<String, Element> members() {
    Map<String, Element> members = new LinkedHashMap<>();
    json.fieldNames().forEachRemaining(name -> members.put(name, get(name)));
    return members;
  }

  /** Returns its elements, as written. */
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

  /** Returns this element and its place, as an error. */
  String asks(String what) {
    return what + "   (" + place() + ")";
  }

  MalformedDescription malformed(String message) {
    return new MalformedDescription(place(), message);
  }
}
