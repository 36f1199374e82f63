// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Query;
import dev.cachette.internal.json.Json;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** Parses the value of a parameter from the texts in a request, by its style. */
final class ParameterText {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private ParameterText() {}

  /** Returns the value of one text: in a path, in a header, in a cookie. */
  static JsonNode of(Parameter parameter, String text) {
    String bare = bare(parameter, text);
    if (parameter.isJson()) {
      return json(bare);
    }
    if (parameter.isArray()) {
      String separator =
          parameter.explode() && parameter.style().equals("label")
              ? "."
              : parameter.explode() && parameter.style().equals("matrix")
                  ? ";" + parameter.name() + "="
                  : separator(parameter);
      return array(parameter, split(bare, separator));
    }
    if (parameter.isObject()) {
      return object(parameter, split(bare, separator(parameter)));
    }
    return SchemaTypes.value(bare, parameter.schema());
  }

  /** Returns the value in a query or a form; empty if it is absent. */
  static Optional<JsonNode> in(Query query, Parameter parameter) {
    if (parameter.isObject() && parameter.style().equals("deepObject")) {
      return deep(query, parameter);
    }
    if (parameter.isObject() && parameter.explode()) {
      return spread(query, parameter);
    }
    List<String> values = query.all(parameter.name());
    if (values.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        parameter.isArray() && parameter.explode()
            ? array(parameter, values)
            : of(parameter, values.get(0)));
  }

  /** Returns the query parameters that it consumes. */
  static boolean takes(Parameter parameter, String name) {
    if (parameter.name().equals(name)) {
      return true;
    }
    if (!parameter.isObject()) {
      return false;
    }
    return parameter.style().equals("deepObject")
        ? name.startsWith(parameter.name() + "[")
        : parameter.explode() && SchemaTypes.property(parameter.schema(), name).isThere();
  }

  private static String bare(Parameter parameter, String text) {
    String prefix =
        switch (parameter.style()) {
          case "label" -> ".";
          case "matrix" -> ";" + parameter.name() + "=";
          default -> "";
        };
    return text.startsWith(prefix) ? text.substring(prefix.length()) : text;
  }

  private static String separator(Parameter parameter) {
    return switch (parameter.style()) {
      case "spaceDelimited" -> " ";
      case "pipeDelimited" -> "|";
      default -> ",";
    };
  }

  private static List<String> split(String text, String separator) {
    return text.isEmpty() ? List.of() : List.of(text.split(Pattern.quote(separator), -1));
  }

  private static JsonNode json(String text) {
    return Json.isValid(text) ? Json.tree(text) : JSON.textNode(text);
  }

  private static ArrayNode array(Parameter parameter, List<String> texts) {
    Element items = parameter.schema().followed().get("items");
    ArrayNode array = JSON.arrayNode();
    texts.forEach(text -> array.add(SchemaTypes.value(text, items)));
    return array;
  }

  /** Parses {@code name,value,name,value}; or {@code name=value,name=value}, if exploded. */
  private static ObjectNode object(Parameter parameter, List<String> texts) {
    List<String> flat = new ArrayList<>();
    for (String text : texts) {
      flat.addAll(parameter.explode() ? List.of(text.split("=", 2)) : List.of(text));
    }
    ObjectNode object = JSON.objectNode();
    for (int at = 0; at + 1 < flat.size(); at += 2) {
      put(object, flat.get(at), flat.get(at + 1), parameter);
    }
    return object;
  }

  /** Parses {@code name[member]=value}. */
  private static Optional<JsonNode> deep(Query query, Parameter parameter) {
    ObjectNode object = JSON.objectNode();
    String start = parameter.name() + "[";
    for (String name : query.names()) {
      if (name.startsWith(start) && name.endsWith("]")) {
        String member = name.substring(start.length(), name.length() - 1);
        put(object, member, query.first(name).orElse(""), parameter);
      }
    }
    return object.isEmpty() ? Optional.empty() : Optional.of(object);
  }

  /** Parses an object whose members are parameters. */
  private static Optional<JsonNode> spread(Query query, Parameter parameter) {
    ObjectNode object = JSON.objectNode();
    for (String name : query.names()) {
      if (SchemaTypes.property(parameter.schema(), name).isThere()) {
        put(object, name, query.first(name).orElse(""), parameter);
      }
    }
    return object.isEmpty() ? Optional.empty() : Optional.of(object);
  }

  private static void put(ObjectNode to, String name, String text, Parameter parameter) {
    to.set(name, SchemaTypes.value(text, SchemaTypes.property(parameter.schema(), name)));
  }
}
