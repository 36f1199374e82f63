// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.MediaType;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Checks a body against its description. */
final class BodyCheck {

  private static final double NEAR = 0.5;

  private final Schemas schemas;
  private final Direction direction;

  BodyCheck(Schemas schemas, Direction direction) {
    this.schemas = schemas;
    this.direction = direction;
  }

  /** Returns the violations of a body; empty if there are none. */
  Optional<Check> of(Content content, Element described) {
    Element types = described.get("content");
    if (types.json().isEmpty()) {
      return Optional.of(missed(described.asks("no body"), "a body"));
    }
    if (content.isEmpty()) {
      return Optional.of(missed(described.asks(MediaTypes.listed(types)), "an empty body"));
    }
    Optional<MediaType> type = content.mediaType();
    Optional<Element> media = type.flatMap(it -> MediaTypes.described(types, it));
    if (media.isEmpty()) {
      return Optional.of(
          Check.missed(
              "content type",
              NEAR,
              Difference.of(
                  described.asks(MediaTypes.listed(types)),
                  content.headers().first("content-type").orElse(Difference.MISSING))));
    }
    Element schema = media.get().raw("schema");
    Optional<Reading<JsonNode>> value = BodyValue.of(content, schema);
    if (value.isEmpty()) {
      return Optional.empty();
    }
    if (value.get().value().isEmpty()) {
      return Optional.of(missed(described.asks(type.get().toString()), value.get().problem()));
    }
    List<Difference> differences = differences(content, media.get(), value.get().value().get());
    return differences.isEmpty()
        ? Optional.empty()
        : Optional.of(Check.missed("body", NEAR, "valid against its schema", differences));
  }

  private List<Difference> differences(Content content, Element media, JsonNode value) {
    Element schema = media.raw("schema");
    boolean sequence =
        BodyFormats.named(content.headers().first("content-type")).isSequence()
            && value.isArray()
            && !SchemaTypes.of(schema).contains("array");
    if (!sequence) {
      return schemas.differences(value, schema, direction);
    }
    // Before OpenAPI 3.2, which has itemSchema, schemas of sequences were meant for their items.
    Element items = media.raw("itemSchema").isThere() ? media.raw("itemSchema") : schema;
    List<Difference> differences = new ArrayList<>();
    for (int at = 0; at < value.size(); at++) {
      String place = "$[" + at + "]";
      schemas
          .differences(value.get(at), items, direction)
          .forEach(it -> differences.add(it.at(place + it.at().substring(1))));
    }
    return differences;
  }

  private static Check missed(String expected, String actual) {
    return Check.missed("body", NEAR, Difference.of(expected, actual));
  }
}
