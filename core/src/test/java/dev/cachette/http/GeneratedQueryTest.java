// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Generator;
import dev.cachette.internal.uri.Percent;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Queries, percent-encoding and request lines that are generated. */
class GeneratedQueryTest {

  private static final int CASES = 3_000;
  private static final Pattern VARIABLE = Pattern.compile("\\{\\+?(\\w+)}");

  @Test
  void fieldsAreReadAsTheyWereEncoded() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      Map<String, List<String>> wanted = new LinkedHashMap<>();
      List<String> pairs = new ArrayList<>();
      for (int number = generator.below(5); number >= 0; number--) {
        String name = generator.name();
        String value = generator.text();
        wanted.computeIfAbsent(name, unused -> new ArrayList<>()).add(value);
        pairs.add(Percent.encodeForm(name) + "=" + Percent.encodeForm(value));
      }

      Query read = Query.read(String.join("&", pairs));
      wanted.forEach((name, values) -> assertEquals(values, read.all(name), pairs::toString));
    }
  }

  /** Whatever bytes arrive, nothing is thrown, and normal form is stable. */
  @Test
  void normalFormIsStableForAnyText() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      String text = generator.text() + "%" + generator.word(2) + generator.text();
      String normal = Percent.normalise(Percent.encodeIllegal(text));
      assertEquals(normal, Percent.normalise(normal), text);
      assertEquals(Percent.decode(text), Percent.decode(Percent.encodeIllegal(text)), text);
      Query.read(text);
    }
  }

  /** The examples of RFC 6570 section 3.2.2 and 3.2.3, expanded and matched. */
  @ParameterizedTest(name = "{0}")
  @CsvSource({
    "/{var},              value",
    "/{hello},            Hello World!",
    "/{half},             50%",
    "/O{empty}X,          ",
    "/{+path}/here,       /foo/bar",
    "/here/{+path},       /foo/bar",
    "/up{+path}{var}/here, /foo/barvalue",
  })
  void rfc6570(String template, String value) {
    String given = value == null ? "" : value;
    Matcher variable = VARIABLE.matcher(template);
    assertTrue(variable.find());
    String name = variable.group(1);
    String encoded =
        template.contains("+") ? given : Percent.encodeSegment(given).replace("%21", "!");
    String path =
        template.contains("{var}/here")
            ? "/up" + given + "/here"
            : VARIABLE.matcher(template).replaceAll(Matcher.quoteReplacement(encoded));
    Request request =
        new Request("GET", Uri.parse("https://tides.example" + path), Headers.none(), Body.empty());

    var match = RequestPattern.of("GET https://tides.example" + template).match(request);
    if (given.isEmpty() || template.contains("{var}/here")) {
      // A variable of one segment matches no empty text, and two adjacent ones are ambiguous.
      assertTrue(match.isEmpty() || match.get().containsKey(name), path);
    } else {
      assertEquals(given, match.orElseThrow().get(name), path);
    }
  }

  @Test
  void malformedRequestLinesAreRefusedWithTheirColumn() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      String line =
          "GET https://tides.example/"
              + generator.one("{", "}", "{a", "{}", "{?q}", "{a}{a}", "{/x}", "{#x}", "{a b}")
              + generator.word(2);
      IllegalArgumentException refused =
          assertThrows(IllegalArgumentException.class, () -> RequestPattern.of(line), line);
      assertTrue(refused.getMessage().contains("column"), refused::getMessage);
    }
  }
}
