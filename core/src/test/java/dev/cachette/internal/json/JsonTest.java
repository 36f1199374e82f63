// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Reading and writing JSON, and what cannot be. */
class JsonTest {

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{\"a\":[1,2.50,12345678901,12345678901234567890,true,false,null,\"x\\\"y\"]}",
        "[]",
        "{}",
        "\"a\"",
        "0",
        "null"
      })
  void whatIsReadIsWrittenAgain(String text) {
    assertTrue(Json.isValid(text));
    assertEquals(Optional.empty(), Json.problemIn(text));
    assertEquals(text, Json.text(Json.tree(text)));
    assertEquals(Json.tree(text), Json.read("a text", text));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "``    | it is empty",
        "1 2   | line 1, column 3: unexpected content after the end",
        "{     | line 1, column 2: Unexpected end-of-input: expected close marker for Object (start"
            + " marker at line: 1, column: 1), near {",
        "[01]  | line 1, column 3: Invalid numeric value: Leading zeroes not allowed, near [01]",
      })
  void whatIsNoJsonSaysWhere(String text, String problem) {
    assertFalse(Json.isValid(text));
    assertEquals(problem, Json.problemIn(text).orElseThrow());
    IllegalArgumentException refused =
        assertThrows(IllegalArgumentException.class, () -> Json.read("a text", text));
    assertEquals(
        "a text was given text that is not valid JSON, " + problem + "\nFix: correct it.",
        refused.getMessage());
  }

  @Test
  void malformedTextIsNoTree() {
    assertThrows(IllegalArgumentException.class, () -> Json.tree("{"));
    assertTrue(Json.tree("").isMissingNode());
    assertThrows(IllegalArgumentException.class, () -> Json.text(MissingNode.getInstance()));
  }

  @Test
  void formattedJsonHasLines() {
    assertEquals(
        "{\n  \"a\" : 1\n}",
        Json.text(Json.tree("{\"a\":1}"), new DefaultPrettyPrinter()).replace("\r", ""));
  }

  @Test
  void objectsAreWrittenByAMapper() {
    assertEquals(
        "{\"at\":\"2031-04-02T04:10:00Z\"}",
        Json.write(
            "json(object)", Map.of("at", Instant.parse("2031-04-02T04:10:00Z")), Json.mapper()));
    IllegalArgumentException refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> Json.write("json(object)", new Object(), Json.mapper()));
    assertTrue(
        refused.getMessage().startsWith("json(object) cannot be written: Jackson rejected"),
        refused.getMessage());
  }

  @Test
  void nodesOfStubsAreMergedIfTheyFit() {
    ObjectNode node = StubNodes.member("query", StubNodes.member("day", StubNodes.text("2")));
    assertTrue(StubNodes.merge(node, Json.tree("{\"query\":{\"unit\":\"m\"},\"all\":[1]}")));
    assertTrue(StubNodes.merge(node, Json.tree("{\"all\":[2]}")));
    assertFalse(StubNodes.merge(node, Json.tree("{\"query\":{\"day\":\"3\"},\"more\":1}")));
    assertEquals(
        Json.tree("{\"query\":{\"day\":\"2\",\"unit\":\"m\"},\"all\":[1,2]}").toString(),
        node.toString());
    assertEquals("[\"a\",\"b\"]", StubNodes.texts(List.of("a", "b")).toString());
    assertEquals("12", StubNodes.number(new BigDecimal("12")).toString());
    assertEquals("1.5", StubNodes.number(new BigDecimal("1.5")).toString());
    assertEquals(
        "{\"headers\":{\"a\":true}}",
        StubNodes.member("headers", "a", Optional.of(StubNodes.flag(true))).orElseThrow() + "");
    assertEquals(
        Optional.empty(),
        StubNodes.all(List.of(Optional.of(StubNodes.object()), Optional.empty())));
    assertEquals("[{}]", StubNodes.all(List.of(Optional.of(StubNodes.object()))).get() + "");
  }
}
