// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.misuse.Refusals;
import java.util.List;
import java.util.Optional;

/**
 * A schema within another one, which can be replaced.
 *
 * @param holder the object or array that it is in
 * @param key its name there, or its index
 * @param example the value of the example at this place
 * @param owner the schema of the object that has it as a member
 */
record SchemaPlace(JsonNode holder, String key, JsonNode example, Optional<ObjectNode> owner) {

  /** The name of the whole schema in its holder. */
  static final String ROOT = "schema";

  /** Returns the place of a value of the example. */
  static SchemaPlace at(List<String> steps, ObjectNode root, JsonNode example, JsonNode value) {
    JsonNode holder = root;
    String key = ROOT;
    JsonNode within = example;
    Optional<ObjectNode> owner = Optional.empty();
    for (String step : steps) {
      JsonNode schema = child(holder, key);
      if (within.isArray()) {
        within = within.path(Integer.parseInt(step));
        boolean byPlace = schema.has("prefixItems");
        holder = byPlace ? schema.get("prefixItems") : schema;
        key = byPlace ? step : "items";
        owner = Optional.empty();
      } else {
        within = within.path(step);
        holder = schema.path("properties");
        key = step;
        owner = Optional.of((ObjectNode) schema);
      }
    }
    return new SchemaPlace(holder, key, value, owner);
  }

  private static JsonNode child(JsonNode holder, String key) {
    return holder.isArray() ? holder.path(Integer.parseInt(key)) : holder.path(key);
  }

  /** Returns the schema. */
  ObjectNode schema() {
    return (ObjectNode) child(holder, key);
  }

  /** Replaces the schema. */
  void replace(ObjectNode schema) {
    if (holder instanceof ArrayNode array) {
      array.set(Integer.parseInt(key), schema);
    } else {
      ((ObjectNode) holder).set(key, schema);
    }
  }

  /** Returns a place below this one. */
  SchemaPlace below(JsonNode inner, String name, JsonNode value) {
    return new SchemaPlace(inner, name, value, Optional.empty());
  }

  /** Makes the value optional. */
  void optional() {
    if (owner.isEmpty()) {
      throw Refusals.argument("only a member of an object, or a header, can be optional.");
    }
    ArrayNode left = owner.get().arrayNode();
    owner.get().path("required").forEach(it -> left.addAll(keyIs(it) ? List.of() : List.of(it)));
    if (left.isEmpty()) {
      owner.get().remove("required");
    } else {
      owner.get().set("required", left);
    }
  }

  private boolean keyIs(JsonNode name) {
    return name.asText().equals(key);
  }
}
