// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Bodies;
import dev.cachette.match.BodyCondition;
import java.util.Optional;

/** The keys of a condition on a whole body. */
final class BodyKeys {

  /** Reads the condition under a key. */
  @FunctionalInterface
  interface Reading {

    /**
     * Returns the condition; empty if it has problems, or belongs to another one.
     *
     * @param mapping the mapping that the key is in
     */
    Optional<BodyCondition> of(BodyReader reader, Node value, Fields mapping);
  }

  static final String IGNORING = "ignoring";
  static final String ANY_ORDER = "anyOrder";

  static final Keys<Reading> ALL =
      Keys.of(
          new Key<>(
              "sameJson",
              "The same JSON.",
              Shape.ANY,
              (reader, value, mapping) ->
                  Optional.of(BodyReader.json(Bodies.sameJson(value.json()), mapping))),
          new Key<>(
              "containsJson",
              "JSON with these members, and possibly others.",
              Shape.ANY,
              (reader, value, mapping) ->
                  Optional.of(BodyReader.json(Bodies.containsJson(value.json()), mapping))),
          new Key<>(
              IGNORING,
              "Places that sameJson and containsJson ignore.",
              Shape.list(Shape.TEXT),
              (reader, value, mapping) -> Optional.empty()),
          new Key<>(
              ANY_ORDER,
              "Arrays of sameJson and containsJson in any order.",
              Shape.FLAG,
              (reader, value, mapping) -> Optional.empty()),
          new Key<>(
              "jsonSchema",
              "JSON that is valid against this schema.",
              Shape.types("object", "boolean"),
              (reader, value, mapping) -> Optional.of(Bodies.jsonSchema(value.json().toString()))),
          new Key<>(
              "sameXml",
              "The same XML.",
              Shape.TEXT,
              (reader, value, mapping) -> Optional.of(Bodies.sameXml(value.text()))),
          new Key<>(
              "sameText",
              "Exactly this text.",
              Shape.SCALAR,
              (reader, value, mapping) -> Optional.of(Bodies.sameText(value.text()))),
          new Key<>(
              "sameBytes",
              "Exactly these bytes, in Base64.",
              Shape.TEXT,
              (reader, value, mapping) ->
                  Optional.of(Bodies.sameBytes(ContentReader.bytes(value)))),
          new Key<>(
              "text",
              "Text that meets a condition.",
              StubShapes.VALUE,
              (reader, value, mapping) -> reader.text(value)));

  private BodyKeys() {}
}
