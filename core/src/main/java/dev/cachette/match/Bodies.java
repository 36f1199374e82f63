// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import static dev.cachette.match.Arguments.given;
import static dev.cachette.match.Arguments.named;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.xml.XPaths;
import dev.cachette.internal.xml.Xml;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Creates conditions on bodies, for static import, as arguments of {@code body(...)} or {@code
 * where(...)}: {@code .body(containsJson("{\"day\": \"2031-04-02\"}"))}.
 *
 * <p>The content is decoded from gzip or deflate first, and text from the charset of its content
 * type, or UTF-8. Every method throws {@link IllegalArgumentException} if an argument is null or
 * malformed; the message marks the place.
 */
public final class Bodies {

  private Bodies() {}

  /** Matches bodies whose text meets a condition. */
  public static BodyCondition textBody(ValueCondition value) {
    return new TextBody(given("textBody(value)", value));
  }

  /** Matches bodies with exactly this text. */
  public static BodyCondition sameText(String text) {
    return new SameText(given("sameText(text)", text));
  }

  /** Matches bodies with exactly these bytes. */
  public static BodyCondition sameBytes(byte[] bytes) {
    return new SameBytes(given("sameBytes(bytes)", bytes));
  }

  /** Matches the same JSON, with members in any order. */
  public static JsonBody sameJson(String text) {
    return new JsonBody(JsonComparison.same(tree("sameJson(text)", text)));
  }

  /**
   * Matches the JSON that Jackson writes for this object, as {@link
   * dev.cachette.answer.Answers#json(Object)} does.
   */
  public static JsonBody sameJson(Object value) {
    return new JsonBody(JsonComparison.same(tree("sameJson(value)", value)));
  }

  /** Matches JSON with these members and values, and possibly others. Arrays are compared whole. */
  public static JsonBody containsJson(String text) {
    return new JsonBody(JsonComparison.containing(tree("containsJson(text)", text)));
  }

  /** Matches JSON with the members that Jackson writes for this object, and possibly others. */
  public static JsonBody containsJson(Object value) {
    return new JsonBody(JsonComparison.containing(tree("containsJson(value)", value)));
  }

  /**
   * Matches JSON with a value that meets a condition.
   *
   * @param path a JSONPath (RFC 9535) such as {@code $.vessel.draught}, or a JSON Pointer (RFC
   *     6901) such as {@code /vessel/draught}
   */
  public static BodyCondition jsonAt(String path, ValueCondition value) {
    return new JsonValue(JsonQuery.parse(path), given("jsonAt(path, value)", value));
  }

  /**
   * Matches JSON with this value at a place.
   *
   * @param path a JSONPath (RFC 9535) or a JSON Pointer (RFC 6901)
   * @param value a plain value, see {@link Values#is(Object)}; null means JSON null
   */
  public static BodyCondition jsonAt(String path, @Nullable Object value) {
    return jsonAt(path, PlainValue.condition("jsonAt(path, value)", value));
  }

  /** Matches JSON that is valid against a JSON Schema, by default of the dialect 2020-12. */
  public static BodyCondition jsonSchema(String schema) {
    return new SchemaBody(Json.read("jsonSchema(text)", given("jsonSchema(text)", schema)));
  }

  /**
   * Matches the same XML; prefixes, comments, the order of attributes, and white space between
   * elements do not count.
   */
  public static BodyCondition sameXml(String text) {
    try {
      return XmlBody.same(Xml.parse(given("sameXml(text)", text)).getDocumentElement(), text);
    } catch (Xml.MalformedXml malformed) {
      throw Refusals.argument(
          "sameXml(text) was given text that is not well-formed XML, "
              + malformed.getMessage()
              + "\nFix: correct it.",
          malformed);
    }
  }

  /**
   * Matches XML with a value that meets a condition, by an XPath 1.0 expression without prefixes.
   */
  public static BodyCondition xpath(String expression, ValueCondition value) {
    return xpath(expression, value, Map.of());
  }

  /** Matches XML with this value, by an XPath 1.0 expression without prefixes. */
  public static BodyCondition xpath(String expression, Object value) {
    return xpath(expression, value, Map.of());
  }

  /**
   * Matches XML with a value that meets a condition, or is this one, by an XPath 1.0 expression.
   *
   * @param namespaces the namespaces of the prefixes in the expression
   */
  public static BodyCondition xpath(
      String expression, Object value, Map<String, String> namespaces) {
    return XmlBody.xpath(
        new XPaths(given("xpath(expression)", expression), given("xpath namespaces", namespaces)),
        PlainValue.text("xpath(expression, value)", value));
  }

  /** Matches URL-encoded forms with a field that meets a condition. */
  public static BodyCondition formField(String field, ValueCondition value) {
    return new FormField(
        named("formField(field, value)", field), given("formField(field, value)", value));
  }

  /** Matches URL-encoded forms with a field of this value. */
  public static BodyCondition formField(String field, Object value) {
    return formField(field, PlainValue.text("formField(field, value)", value));
  }

  /** Matches multipart bodies with a part of this name; the result takes further requirements. */
  public static PartCondition part(String name) {
    return new PartCondition(named("part(name)", name));
  }

  /** Matches SOAP requests; the result takes further requirements. */
  public static SoapCondition soap() {
    return new SoapCondition();
  }

  /**
   * Matches GraphQL over HTTP requests; the result takes further requirements.
   *
   * @throws IllegalStateException if graphql-java is not on the classpath; Cachette does not depend
   *     on it
   */
  public static GraphQlCondition graphql() {
    return new GraphQlCondition();
  }

  private static JsonNode tree(String what, Object value) {
    return given(what, value) instanceof CharSequence text
        ? Json.read(what, text.toString())
        : Json.tree(Json.write(what, value, Json.mapper()));
  }
}
