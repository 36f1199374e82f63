package dev.cachette.match;

import static dev.cachette.match.Arguments.given;
import static dev.cachette.match.Arguments.named;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.xml.XPaths;
import dev.cachette.internal.xml.Xml;
import java.util.Map;

/**
 * Makes conditions on bodies, for static import and given to {@code body(...)} or {@code
 * where(...)}: {@code .body(containsJson("{\"day\": \"2031-04-02\"}"))}.
 *
 * <p>Content in the encoding gzip or deflate is decoded first, and text is read in the charset of
 * its content type, else UTF-8. Every method throws {@link IllegalArgumentException} where it is
 * given null or something malformed; the message says where.
 */
public final class Bodies {

  private Bodies() {}

  /** Returns a text that fulfils a condition. */
  public static BodyCondition text(ValueCondition value) {
    return new TextBody(given("text(value)", value));
  }

  /** Exactly this text. */
  public static BodyCondition sameText(String text) {
    return new SameText(given("sameText(text)", text));
  }

  /** Exactly these bytes. */
  public static BodyCondition sameBytes(byte[] bytes) {
    return new SameBytes(given("sameBytes(bytes)", bytes));
  }

  /** Returns the same JSON, whatever the order of members and the white space. */
  public static JsonBody sameJson(String text) {
    return new JsonBody(JsonComparison.same(tree("sameJson(text)", text)));
  }

  /** Returns the same JSON as Jackson writes for this object. */
  public static JsonBody sameJson(Object value) {
    return new JsonBody(JsonComparison.same(tree("sameJson(value)", value)));
  }

  /**
   * JSON that has these members with these values, and perhaps others. Arrays are compared whole.
   */
  public static JsonBody containsJson(String text) {
    return new JsonBody(JsonComparison.containing(tree("containsJson(text)", text)));
  }

  /** JSON that has the members that Jackson writes for this object, and perhaps others. */
  public static JsonBody containsJson(Object value) {
    return new JsonBody(JsonComparison.containing(tree("containsJson(value)", value)));
  }

  /**
   * JSON with a value that fulfils a condition.
   *
   * @param path a JSONPath (RFC 9535) such as {@code $.vessel.draught}, or a JSON Pointer (RFC
   *     6901) such as {@code /vessel/draught}
   */
  public static BodyCondition json(String path, ValueCondition value) {
    return new JsonValue(JsonQuery.parse(path), given("json(path, value)", value));
  }

  /** JSON that matches a JSON Schema, in the dialect that it names, by default 2020-12. */
  public static BodyCondition jsonSchema(String schema) {
    return new SchemaBody(Json.read("jsonSchema(text)", given("jsonSchema(text)", schema)));
  }

  /**
   * Returns the same XML, whatever its prefixes, comments, order of attributes and white space
   * between.
   */
  public static BodyCondition sameXml(String text) {
    try {
      return XmlBody.same(Xml.parse(given("sameXml(text)", text)).getDocumentElement(), text);
    } catch (Xml.MalformedXml malformed) {
      throw new IllegalArgumentException(
          "sameXml(text) was given a text that is not well-formed XML, "
              + malformed.getMessage()
              + "\nFix: correct it.",
          malformed);
    }
  }

  /** XML with a value that fulfils a condition, by an XPath 1.0 expression without prefixes. */
  public static BodyCondition xpath(String expression, ValueCondition value) {
    return xpath(expression, value, Map.of());
  }

  /**
   * XML with a value that fulfils a condition, by an XPath 1.0 expression.
   *
   * @param namespaces what the prefixes in the expression stand for
   */
  public static BodyCondition xpath(
      String expression, ValueCondition value, Map<String, String> namespaces) {
    return XmlBody.xpath(
        new XPaths(given("xpath(expression)", expression), given("xpath namespaces", namespaces)),
        given("xpath(expression, value)", value));
  }

  /** Returns a URL-encoded form with a field that fulfils a condition. */
  public static BodyCondition form(String field, ValueCondition value) {
    return new FormField(given("form(field, value)", field), given("form(field, value)", value));
  }

  /** Returns a multipart body with a part of this name; what it must be is said on the result. */
  public static PartCondition part(String name) {
    return new PartCondition(named("part(name)", name));
  }

  /** Returns a SOAP request; what it must be is said on the result. */
  public static SoapCondition soap() {
    return new SoapCondition();
  }

  /**
   * Returns a request of GraphQL over HTTP; what it must be is said on the result.
   *
   * @throws IllegalStateException if graphql-java is not on the class path; it is no dependency of
   *     Cachette's own
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
