// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.MediaType;
import dev.cachette.internal.json.SchemaText;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Finds what a consumer needs of responses that an operation does not promise. */
final class PromiseCheck {

  private static final int DEEPEST = 32;

  private final List<Difference> differences = new ArrayList<>();

  private PromiseCheck() {}

  /** Returns what is not promised; empty if everything is. */
  static List<Check> of(Operation operation, NeededResponse needed) {
    Optional<Element> described = operation.response(needed.status());
    if (described.isEmpty()) {
      return List.of(
          missed(
              "status",
              Difference.of(
                  Integer.toString(needed.status()),
                  operation.responses().asks("it has " + operation.statuses()))));
    }
    List<Check> checks = new ArrayList<>();
    for (String name : needed.headers()) {
      header(described.get(), name).ifPresent(checks::add);
    }
    Element content = described.get().get("content");
    Optional<Element> body =
        MediaType.read(needed.mediaType()).flatMap(it -> MediaTypes.described(content, it));
    if (!needed.mediaType().isEmpty() && body.isEmpty()) {
      String listed = MediaTypes.listed(content);
      checks.add(
          missed(
              "media type",
              Difference.of(
                  needed.mediaType(),
                  described
                      .get()
                      .asks(listed.isEmpty() ? "it has no content" : "it is " + listed))));
    }
    if (body.isPresent() && needed.shape().isPresent()) {
      PromiseCheck check = new PromiseCheck();
      check.compare("$", needed.shape().get(), body.get().raw("schema"), 0);
      if (!check.differences.isEmpty()) {
        checks.add(Check.missed("body", 0, check.differences.get(0).expected(), check.differences));
      }
    }
    return checks;
  }

  private static Check missed(String condition, Difference difference) {
    return Check.missed(condition, 0, difference);
  }

  private static Optional<Check> header(Element response, String name) {
    for (Map.Entry<String, Element> each : response.get("headers").members().entrySet()) {
      if (each.getKey().equalsIgnoreCase(name)) {
        return each.getValue().isSet("required")
            ? Optional.empty()
            : Optional.of(
                missed(
                    "header " + name,
                    Difference.of("always present", each.getValue().asks("it is optional"))));
      }
    }
    return Optional.of(
        missed(
            "header " + name,
            Difference.of("always present", response.asks("it is not described"))));
  }

  private void compare(String path, JsonNode needed, Element schema, int depth) {
    Element there = schema.followed();
    if (depth > DEEPEST || !needed.isObject() || needed.isEmpty()) {
      return;
    }
    if (!there.isThere() || there.json().isEmpty() || there.json().isBoolean()) {
      add(
          path,
          SchemaText.of(needed),
          there.isThere() ? there.asks("it may be any value") : "it is not described");
      return;
    }
    Set<String> promised = SchemaTypes.of(there);
    if (!types(path, needed, there, promised)) {
      return;
    }
    values(path, needed, there);
    members(path, needed, there, depth);
    JsonNode items = needed.path("items");
    if (items.isObject() && !items.isEmpty()) {
      compare(path + "[*]", items, SchemaParts.items(there), depth + 1);
    }
    int least = needed.path("minItems").asInt(0);
    if (least > 0 && there.json().path("minItems").asInt(0) < least && needed.has("items")) {
      add(path, "at least " + SchemaText.elements(least), there.asks("it may have any number"));
    }
  }

  /** Returns true if the types fit, so that it is worth looking into the value. */
  private boolean types(String path, JsonNode needed, Element there, Set<String> promised) {
    Set<String> wanted = new LinkedHashSet<>();
    JsonNode type = needed.path("type");
    if (type.isTextual()) {
      wanted.add(type.asText());
    }
    type.forEach(it -> wanted.add(it.asText()));
    if (wanted.isEmpty()) {
      return true;
    }
    Set<String> more = new LinkedHashSet<>(promised);
    more.removeAll(wanted);
    if (wanted.contains("number")) {
      more.remove("integer");
    }
    if (promised.isEmpty() && !there.json().has("enum") && !there.json().has("const")) {
      add(path, SchemaText.of(needed), there.asks("it may be of any type"));
      return false;
    }
    if (!more.isEmpty()) {
      add(path, SchemaText.of(needed), there.asks("it may be " + SchemaText.types(more)));
    }
    return more.size() < promised.size() || promised.isEmpty();
  }

  private void values(String path, JsonNode needed, Element there) {
    JsonNode allowed = needed.has("const") ? needed.get("const") : needed.get("enum");
    if (allowed != null) {
      JsonNode described = there.json().path("enum");
      List<String> more = new ArrayList<>();
      described.forEach(
          it -> {
            if (!isAmong(it, allowed, needed.has("const"))) {
              more.add(it.toString());
            }
          });
      boolean constant = there.json().path("const").equals(allowed);
      if (described.isMissingNode() && !constant) {
        add(path, SchemaText.of(needed), there.asks("it may be any value of its type"));
      } else if (!more.isEmpty()) {
        add(path, SchemaText.of(needed), there.asks("it may be " + String.join(", ", more)));
      }
    }
    for (String keyword : List.of("format", "pattern")) {
      JsonNode wanted = needed.path(keyword);
      if (wanted.isTextual() && !there.json().path(keyword).equals(wanted)) {
        String has = there.json().path(keyword).asText("");
        add(
            path,
            keyword + " " + wanted.asText(),
            there.asks(
                has.isEmpty() ? "it has no " + keyword : "it has the " + keyword + " " + has));
      }
    }
  }

  private static boolean isAmong(JsonNode value, JsonNode allowed, boolean single) {
    if (single) {
      return allowed.equals(value);
    }
    for (JsonNode each : allowed) {
      if (each.equals(value)) {
        return true;
      }
    }
    return false;
  }

  private void members(String path, JsonNode needed, Element there, int depth) {
    Set<String> required = SchemaParts.required(there);
    for (JsonNode name : needed.path("required")) {
      Element property = SchemaTypes.property(there, name.asText());
      String place = path + "." + name.asText();
      if (!property.isThere()) {
        add(place, "always present", there.asks("it is not described"));
      } else if (!required.contains(name.asText())) {
        add(place, "always present", property.asks("it is optional"));
      }
    }
    for (Map.Entry<String, JsonNode> member : needed.path("properties").properties()) {
      Element property = SchemaTypes.property(there, member.getKey());
      if (property.isThere()) {
        compare(path + "." + member.getKey(), member.getValue(), property, depth + 1);
      }
    }
  }

  private void add(String path, String needed, String promised) {
    differences.add(Difference.of(needed, promised).at(path));
  }
}
