// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Paths, expressions and schemas with a mistake are refused when they are given. */
class MalformedConditionsTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "$.a[                | Malformed",
        "a.b                 | \"a.b\" is neither a JSONPath nor a JSON Pointer.~Fix: write $.a.b,"
            + " or /a.b.",
        "length($.a)         | \"length($.a)\" is not a JSONPath: RFC 9535 has functions only in"
            + " filters.~Fix: write \"$.a\" with the value size(...).",
        "/a~2                | Malformed JSON Pointer (RFC 6901) \"/a~2\", at column 3: incomplete"
            + " escape.~Fix: write ~0 for a tilde, ~1 for a slash.",
        "/a~                 | Malformed JSON Pointer (RFC 6901) \"/a~\", at column 3: incomplete"
            + " escape.~Fix: write ~0 for a tilde, ~1 for a slash.",
      })
  void pathsAreChecked(String path, String message) {
    String said = refused(() -> Bodies.jsonAt(path, "x"));
    assertEquals(message, said.startsWith("Malformed JSONPath") ? "Malformed" : said);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{                                 | not valid JSON",
        "5                                 | not a valid JSON Schema: Value is [integer] but",
        "{\"type\": \"text\"}              | not a valid JSON Schema: at /type: expected one of"
            + " array,",
        "{\"$ref\": \"#\"}                 | not a valid JSON Schema: it refers to itself, without"
            + " an end",
        "{\"$defs\": {\"a\": {\"allOf\": [{\"$ref\": \"#/$defs/b\"}]}, \"b\": {\"not\": {\"$ref\":"
            + " \"#/$defs/a\"}}}} | not a valid JSON Schema: at /$defs/a: it refers to itself",
        "{\"if\": {\"$ref\": \"#\"}}       | not a valid JSON Schema: it refers to itself",
        "{\"dependentSchemas\": {\"a/b\": {\"$ref\": \"#\"}}} | not a valid JSON Schema: it refers"
            + " to itself",
        "{\"$ref\": \"#/$defs/none\"}      | accepted",
        "{\"properties\": {\"next\": {\"$ref\": \"#\"}}} | accepted",
        "{\"items\": {\"anyOf\": [{\"$ref\": \"#\"}, true]}} | accepted",
        "{\"allOf\": [{\"$ref\": \"#/$defs/a\"}, {\"$ref\": \"#/$defs/a\"}], \"$defs\": {\"a\":"
            + " {}}} | accepted",
      })
  void schemasAreChecked(String schema, String message) {
    String said;
    try {
      Bodies.jsonSchema(schema);
      said = "accepted";
    } catch (IllegalArgumentException refused) {
      said = refused.getMessage();
    }
    assertEquals(message, said.contains(message) ? message : said);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "//       | \"//\" is not a valid XPath 1.0 expression: ",
        "/a[      | \"/a[\" is not a valid XPath 1.0 expression: ",
        "/x:a     | \"/x:a\" is not a valid XPath 1.0 expression: Prefix must resolve to a"
            + " namespace: x~Fix: correct it; declare its prefixes in a map, Map.of(\"v\","
            + " \"urn:harbour\").",
      })
  void expressionsAreChecked(String expression, String message) {
    String said = refused(() -> Bodies.xpath(expression, "x"));
    assertEquals(message, said.startsWith(message) ? message : said);
  }

  @Test
  void anUndeclaredPrefixBesideOthersIsNamed() {
    String said = refused(() -> Bodies.xpath("/y:a", Values.startsWith("x"), Map.of("x", "urn:x")));
    assertEquals(
        "\"/y:a\" is not a valid XPath 1.0 expression: Prefix must resolve to a namespace: y~Fix:"
            + " correct it.",
        said);
  }

  @Test
  void malformedBodiesAreNotCompared() {
    assertEquals(
        "sameJson(text) was given text that is not valid JSON, line 1, column 2: Unexpected"
            + " end-of-input: expected close marker for Object (start marker at line: 1, column:"
            + " 1), near {~Fix: correct it.",
        refused(() -> Bodies.sameJson("{")));
    assertEquals(
        "not well-formed",
        refused(() -> Bodies.sameXml("<a>")).replaceAll("(?s).*(not well-formed).*", "$1"));
  }

  private static String refused(Runnable mistake) {
    return assertThrows(IllegalArgumentException.class, mistake::run)
        .getMessage()
        .replace("\n", "~");
  }
}
