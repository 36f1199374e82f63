// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;

/** The keys of a stub file. */
final class FileKeys {

  static final Keys<Void> COLLECTION =
      Keys.of(
          Key.of("url", "The URL of the collection.", Shape.TEXT),
          Key.of("seed", "The items that it begins with.", Shape.sequence(Shape.OBJECT)),
          Key.of("identifiedBy", "The member that identifies an item; id by default.", Shape.TEXT),
          Key.of(
              "etags",
              "Whether items have ETags, and conditional requests are supported.",
              Shape.FLAG));

  static final Keys<Void> ALL =
      Keys.of(
          Key.of("$schema", "This schema, for editors.", Shape.TEXT),
          Key.of("include", "Other stub files, relative to this one.", Shape.list(Shape.TEXT)),
          Key.of(
              SharedParts.KEY,
              "Parts that stubs use, by name: with YAML anchors, or with $ref: \"#/shared/name\".",
              Shape.OBJECT),
          Key.of(
              "contract",
              "The consumer and the provider that these stubs are a contract of.",
              Shape.mapping(ContractKeys.CONTRACT, "consumer", "provider", "origin")),
          Key.of("cors", "Whether web pages of other origins may call.", Shape.FLAG),
          Key.of("stubs", "The stubs.", Shape.list(Shape.definition("stub"))),
          Key.of(
              "collections",
              "In-memory collections of REST services.",
              Shape.list(Shape.mapping(COLLECTION, "url"))));

  private FileKeys() {}
}
