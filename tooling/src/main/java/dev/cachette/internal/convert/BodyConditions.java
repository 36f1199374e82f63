// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.convert;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Headers;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Part;
import dev.cachette.internal.jsonpath.Located;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * The conditions for the body of a recorded request. Placeholders for secrets stand for any value.
 */
final class BodyConditions {

  private static final String PLACEHOLDER = "{{";

  private BodyConditions() {}

  /** Adds conditions to a stub; returns what they leave out, empty for nothing. */
  static Optional<String> add(Request request, ObjectNode stub) {
    if (request.body().isEmpty()) {
      return Optional.empty();
    }
    Content content = Content.of(request.headers(), request.body());
    String type =
        request.headers().first("content-type").orElse("").toLowerCase(Locale.ROOT).strip();
    Optional<List<Part>> parts =
        type.startsWith("multipart/form-data") ? content.parts().value() : Optional.empty();
    if (parts.isPresent() && hasNames(parts.get())) {
      stub.set("parts", parts(parts.get()));
    } else if (type.startsWith("application/x-www-form-urlencoded") && isForm(content)) {
      stub.set("form", form(content.form()));
    } else {
      JsonNode condition = BodyFormats.condition(content);
      if (condition.has("sameJson")) {
        ignorePlaceholders((ObjectNode) condition);
      } else if (condition.toString().contains(PLACEHOLDER)) {
        return Optional.of("its body has a placeholder for a secret");
      }
      stub.set("body", condition);
    }
    return Optional.empty();
  }

  /** Parts of the same name cannot be told apart in a stub file. */
  private static boolean hasNames(List<Part> parts) {
    return parts.stream().allMatch(part -> part.name().isPresent())
        && parts.stream().map(Part::name).collect(Collectors.toSet()).size() == parts.size();
  }

  private static ObjectNode parts(List<Part> parts) {
    ObjectNode conditions = JsonNodeFactory.instance.objectNode();
    for (Part part : parts) {
      ObjectNode condition = conditions.putObject(part.name().orElseThrow());
      part.fileName().ifPresent(name -> condition.put("fileName", name));
      part.headers().first("content-type").ifPresent(type -> condition.put("contentType", type));
      Headers typed = part.headers();
      JsonNode body = BodyFormats.condition(Content.of(typed, part.body()));
      if (!body.toString().contains(PLACEHOLDER)) {
        condition.putObject("content").set("body", body);
      }
    }
    return conditions;
  }

  /** Returns true if the fields are all that the body has. */
  private static boolean isForm(Content content) {
    return !content.form().names().isEmpty() && !content.form().names().contains("");
  }

  private static ObjectNode form(Query form) {
    ObjectNode conditions = JsonNodeFactory.instance.objectNode();
    for (String name : form.names()) {
      setValue(conditions, name, form.all(name));
    }
    return conditions;
  }

  /** Sets the condition for the values of a field or parameter. */
  static void setValue(ObjectNode conditions, String name, List<String> values) {
    if (values.stream().anyMatch(value -> value.contains(PLACEHOLDER))) {
      conditions.putObject(name).put("present", true);
    } else if (values.size() == 1) {
      conditions.put(name, values.get(0));
    } else {
      ArrayNode list = conditions.putObject(name).putArray("list");
      values.forEach(list::add);
    }
  }

  private static void ignorePlaceholders(ObjectNode condition) {
    List<String> places = new ArrayList<>();
    find(Located.root(condition.get("sameJson")), places);
    if (!places.isEmpty()) {
      ArrayNode ignoring = condition.putArray("ignoring");
      places.forEach(ignoring::add);
    }
  }

  private static void find(Located in, List<String> places) {
    JsonNode value = in.node();
    if (value.isTextual() && value.textValue().contains(PLACEHOLDER)) {
      places.add(in.path());
    } else if (value.isArray()) {
      for (int at = 0; at < value.size(); at++) {
        find(in.element(at), places);
      }
    } else if (value.isObject()) {
      value.properties().forEach(member -> find(in.member(member.getKey()), places));
    }
  }
}
