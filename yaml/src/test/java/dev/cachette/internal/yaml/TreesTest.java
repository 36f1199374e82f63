// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.yaml;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.Generator;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files as trees: their values, and where each of them is. */
class TreesTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  @Test
  void generatedJsonIsReadAsJacksonReadsIt() throws Exception {
    Generator random = new Generator(20310402);
    for (int round = 0; round < 2_000; round++) {
      JsonNode made = random.json(4);
      for (String text :
          List.of(
              made.toString(), MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(made))) {
        assertEquals(made.toString(), read(text).json().toString());
      }
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          stubs: [a]               | stubs[0]                | 1:9   | "a"
          stubs:\\n- x: 1\\n  y: 2 | stubs[0].y              | 3:6   | 2
          a: &n { b: no }\\nc: *n  | a.b                     | 1:12  | "no"
          a: 2031-04-02            | a                       | 1:4   | "2031-04-02"
          a: ~                     | a                       | 1:4   | "~"
          a: 'it''s'               | a                       | 1:4   | "it's"
          "a.b": 1                 | ["a.b"]                 | 1:8   | 1
          ? [k]\\n: 1              | -                       | -     | -
          a: 1e3                   | a                       | 1:4   | 1000.0
          a: 0x10                  | a                       | 1:4   | "0x10"
          """)
  void aValueHasItsPlace(String text, String path, String place, String json) throws Exception {
    List<String> problems = new ArrayList<>();
    String yaml = text.replace("\\n", "\n");
    Node root = Trees.read(yaml, (line, column, at, message) -> problems.add(message)).orElse(null);
    if (path.equals("-")) {
      assertFalse(problems.isEmpty());
      return;
    }
    assertEquals(List.of(), problems);
    Node found = last(root);
    assertEquals(place, found.line() + ":" + found.column());
    assertEquals(
        MAPPER.readTree(json.replace("\\n", "\\n")), MAPPER.readTree(found.json().toString()));
    assertEquals(path, found.path());
  }

  /** Returns the value that comes last. */
  private static Node last(Node node) {
    if (node.isMapping() && !node.members().isEmpty()) {
      return last(node.members().get(node.members().size() - 1).value());
    }
    return node.isSequence() && !node.elements().isEmpty()
        ? last(node.elements().get(node.elements().size() - 1))
        : node;
  }

  @Test
  void valuesDescribeThemselves() {
    Node root = read("{ a: [1], b: text, c: null, d: { e: 'has ${x}' } }");

    assertEquals("a mapping", root.kind());
    assertEquals("a sequence", value(root, 0).kind());
    assertEquals("\"text\"", value(root, 1).kind());
    assertEquals("nothing", value(root, 2).kind());
    assertTrue(root.mentions("${"));
    assertTrue(root.mentions("text"));
    assertFalse(value(root, 0).mentions("${"));
    assertEquals("", root.text());
    assertTrue(value(root, 1).isText());
    assertFalse(value(root, 0).isText());
    Node moved = value(root, 1).startingAt(value(root, 3));
    assertEquals(value(root, 3).column(), moved.column());
    assertEquals("text", moved.text());
  }

  private static Node value(Node mapping, int index) {
    return mapping.members().get(index).value();
  }

  private static Node read(String text) {
    return Trees.read(
            text,
            (line, column, path, message) -> {
              throw new AssertionError(line + ":" + column + " " + message + "\n" + text);
            })
        .orElseThrow();
  }
}
