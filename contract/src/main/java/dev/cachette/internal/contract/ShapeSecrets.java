// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.http.Response;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Takes the values of secrets out of shapes: of those, only the type can be needed. */
final class ShapeSecrets {

  private ShapeSecrets() {}

  /**
   * Returns a shape without secrets.
   *
   * @param plain the response
   * @param redacted the same with placeholders
   */
  static ResponseShape without(ResponseShape shape, Response plain, Response redacted) {
    Map<String, JsonNode> headers = new TreeMap<>();
    shape
        .headers()
        .forEach(
            (name, schema) -> {
              boolean same = plain.headers().all(name).equals(redacted.headers().all(name));
              headers.put(name, same ? schema : TypeSchema.of(TextNode.valueOf("")));
            });
    Optional<JsonNode> before = PlainBodies.json(plain.headers(), plain.body());
    Optional<JsonNode> after = PlainBodies.json(redacted.headers(), redacted.body());
    Optional<JsonNode> body =
        shape.body().isPresent() && before.isPresent() && after.isPresent()
            ? Optional.of(schema(shape.body().get(), before.get(), after.get()))
            : shape.body();
    return new ResponseShape(shape.mediaType(), headers, body);
  }

  private static JsonNode schema(JsonNode schema, JsonNode plain, JsonNode redacted) {
    if (plain.equals(redacted) || !(schema instanceof ObjectNode object)) {
      return schema;
    }
    boolean members = plain.isObject() && redacted.isObject() && object.has("properties");
    boolean elements = plain.isArray() && redacted.isArray() && !object.has("const");
    if (!members && !elements) {
      return TypeSchema.of(plain);
    }
    ObjectNode clean = object.deepCopy();
    if (members) {
      ObjectNode properties = (ObjectNode) clean.get("properties");
      for (Map.Entry<String, JsonNode> each : object.get("properties").properties()) {
        String name = each.getKey();
        properties.set(name, schema(each.getValue(), plain.path(name), redacted.path(name)));
      }
      return clean;
    }
    for (int at = 0; at < plain.size(); at++) {
      if (clean.path("items").isObject()) {
        clean.set("items", schema(clean.get("items"), plain.get(at), redacted.path(at)));
      } else {
        return TypeSchema.of(plain);
      }
    }
    return clean;
  }
}
