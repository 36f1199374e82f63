// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Generator;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever is recognised as JSON is JSON for Jackson. */
@Tag("once")
class JsonSyntaxTest {

  private static final String SIGNS = "{}[]:,\"\\/ \n\t0123456789.-+eEtrufalsn\u0000\u001fé";

  @Test
  void ordinaryJsonIsRecognised() {
    Generator random = new Generator(20310405);
    for (int round = 0; round < 3_000; round++) {
      String json = random.json(4).toString();
      assertTrue(JsonSyntax.recognises(json), json);
      assertTrue(JsonSyntax.recognises(Json.tree(json).toPrettyString()), json);
    }
  }

  /** One sign more, one less, or another one: what Jackson refuses is never recognised. */
  @Test
  void nothingElseIs() {
    Generator random = new Generator(20310406);
    int refused = 0;
    for (int round = 0; round < 60_000; round++) {
      StringBuilder text = new StringBuilder(random.json(3).toString());
      for (int change = random.below(3); change >= 0 && text.length() > 0; change--) {
        int at = random.below(text.length());
        char sign = SIGNS.charAt(random.below(SIGNS.length()));
        switch (random.below(3)) {
          case 0 -> text.deleteCharAt(at);
          case 1 -> text.insert(at, sign);
          default -> text.setCharAt(at, sign);
        }
      }
      String changed = text.toString();
      boolean isJson = Json.problemIn(changed).isEmpty();
      refused += isJson ? 0 : 1;
      assertEquals(isJson, JsonSyntax.recognises(changed), changed);
    }
    assertTrue(refused > 10_000, "refused: " + refused);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        " ",
        "01",
        "-",
        "1.",
        ".5",
        "1e",
        "+1",
        "NaN",
        "'a'",
        "[1,]",
        "{,}",
        "{a:1}",
        "\"",
        "\"\\",
        "\"\\u12",
        "\"\\u12g4\"",
        "\"\\x\"",
        "tru",
        "nul",
        "true false",
        "[1 2]",
        "// a\n1",
        "{\"a\" 1}",
        "{\"a\":}",
        "\"\u0001\"",
        "[",
        "]",
        "{\"a\":1",
        "1 }",
        "\"\\u\uff11234\""
      })
  void thisIsNot(String text) {
    assertEquals(
        List.of(false, true),
        List.of(JsonSyntax.recognises(text), Json.problemIn(text).isPresent()));
  }

  /** Jackson has limits of its own, so it decides. */
  @Test
  void whatIsLongOrDeepIsLeftToTheParser() {
    for (String text :
        List.of(
            "[".repeat(200) + "]".repeat(200), "1".repeat(200), "\"" + "a".repeat(30_000) + "\"")) {
      assertEquals(false, JsonSyntax.recognises(text));
    }
  }
}
