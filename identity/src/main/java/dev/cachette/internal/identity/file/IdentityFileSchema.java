// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity.file;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.fields.Shape;

/** The JSON Schema (2020-12) of files that declare an identity provider, made from their keys. */
public final class IdentityFileSchema {

  private IdentityFileSchema() {}

  /** Returns the schema. */
  public static ObjectNode document() {
    ObjectNode schema = JsonNodeFactory.instance.objectNode();
    schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
    schema.put("title", "Identity file of Cachette");
    schema.put("description", "An identity provider as YAML or JSON: its users and clients.");
    schema.setAll(Shape.mapping(IdentityKeys.ALL, "issuer").schema());
    schema.putObject("$defs").set("duration", Shape.duration());
    return schema;
  }
}
