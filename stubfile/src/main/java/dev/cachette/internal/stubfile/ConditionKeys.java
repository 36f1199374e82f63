// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Bodies;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The keys for the parts of a request: those of a stub, and of each condition. */
final class ConditionKeys {

  /** Reads the conditions under a key. */
  @FunctionalInterface
  interface Reading {

    /**
     * Returns the conditions.
     *
     * @param mapping the mapping that the key is in
     */
    List<Condition> of(ConditionReader reader, Node value, Fields mapping);
  }

  /** A key next to {@code xpath}, which reads it. */
  static final String NAMESPACES = "namespaces";

  private static final Shape VALUES = Shape.members(StubShapes.VALUE);
  private static final Shape CONDITIONS = Shape.list(StubShapes.CONDITION);

  static final Keys<Void> BASIC =
      Keys.of(
          Key.of("user", "The name of the user.", Shape.SCALAR),
          Key.of("password", "The password.", Shape.SCALAR));

  static final Keys<Void> PART =
      Keys.of(
          Key.of("fileName", "The file name that the client gives.", StubShapes.VALUE),
          Key.of("contentType", "The media type of the part.", StubShapes.VALUE),
          Key.of(
              "content", "What the content of the part must be.", Shape.list(StubShapes.CONTENT)));

  static final Keys<Void> GRAPHQL =
      Keys.of(
          Key.of("operation", "The name of the operation.", StubShapes.VALUE),
          Key.of(
              "kind",
              "The kind of operation.",
              Shape.choice(List.of("query", "mutation", "subscription"))),
          Key.of(
              "variables", "Variables by name, or by JSONPath or JSON Pointer into them.", VALUES),
          Key.of("fields", "Root fields that are selected.", Shape.list(Shape.TEXT)));

  static final Keys<Void> SOAP =
      Keys.of(
          Key.of("version", "The version of SOAP.", Shape.choice(List.of("1.1", "1.2"))),
          Key.of("action", "The SOAPAction, or the action of the media type.", StubShapes.VALUE),
          Key.of("element", "The local name of the first element of the body.", StubShapes.VALUE),
          Key.of(
              "qualifiedElement",
              "The same with its namespace: \"{urn:harbour}Declare\".",
              () -> Shape.TEXT.schema().put("pattern", "^\\{[^}]*\\}.+")));

  static final Keys<Reading> ALL =
      Keys.of(
          each("path", "Variables of the request line.", Conditions::path),
          each("query", "Parameters of the query, decoded.", Conditions::query),
          each("headers", "Headers, whatever the case of their names.", Conditions::header),
          each("cookies", "Cookies.", Conditions::cookie),
          new Key<>(
              "basic",
              "The credentials of HTTP Basic authentication.",
              Shape.mapping(BASIC, "user", "password"),
              (reader, value, mapping) -> reader.basic(value)),
          new Key<>(
              "bearer",
              "The token of Bearer authentication.",
              StubShapes.VALUE,
              (reader, value, mapping) -> reader.one(value, Conditions::bearer)),
          each(
              "json",
              "Places in a JSON body, by JSONPath ($.vessel.name) or JSON Pointer (/vessel/name).",
              Bodies::jsonAt),
          each("form", "Fields of a URL-encoded form.", Bodies::formField),
          new Key<>(
              "xpath",
              "Places in an XML body, by XPath 1.0.",
              VALUES,
              (reader, value, mapping) -> {
                Map<String, String> prefixes = ConditionReader.namespaces(mapping);
                return reader.each(value, (path, is) -> Bodies.xpath(path, is, prefixes));
              }),
          new Key<>(
              NAMESPACES,
              "What the prefixes in xpath stand for.",
              Shape.members(Shape.TEXT),
              (reader, value, mapping) -> List.of()),
          new Key<>(
              "parts",
              "Parts of a multipart body, by name.",
              Shape.members(Shape.mapping(PART)),
              (reader, value, mapping) -> reader.parts(value)),
          new Key<>(
              "body",
              "The body as a whole; a plain string is exactly that text.",
              StubShapes.BODY,
              (reader, value, mapping) -> reader.body(value)),
          new Key<>(
              "graphql",
              "A request of GraphQL over HTTP.",
              Shape.mapping(GRAPHQL),
              (reader, value, mapping) -> reader.graphql(value)),
          new Key<>(
              "soap",
              "A SOAP request.",
              Shape.mapping(SOAP),
              (reader, value, mapping) -> reader.soap(value)),
          new Key<>(
              "anyOf",
              "One of these holds.",
              CONDITIONS,
              (reader, value, mapping) -> reader.several(value, Conditions::anyOf)),
          new Key<>(
              "allOf",
              "All of these hold.",
              CONDITIONS,
              (reader, value, mapping) -> reader.several(value, Conditions::allOf)),
          new Key<>(
              "not",
              "This does not hold.",
              StubShapes.CONDITION,
              (reader, value, mapping) ->
                  reader.read(value).map(Condition::negated).stream().toList()));

  /** Those that say something of the content of a part. */
  static final Keys<Reading> CONTENT =
      ALL.only(Set.of("body", "json", "form", "xpath", NAMESPACES));

  private ConditionKeys() {}

  private static Key<Reading> each(
      String name, String help, ConditionReader.OfNamedValue condition) {
    return new Key<>(name, help, VALUES, (reader, value, mapping) -> reader.each(value, condition));
  }
}
