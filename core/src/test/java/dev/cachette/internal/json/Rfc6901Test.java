// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The examples of RFC 6901 section 5. */
class Rfc6901Test {

  private static final JsonNode DOCUMENT =
      Json.tree(
          """
          {"foo": ["bar", "baz"], "": 0, "a/b": 1, "c%d": 2, "e^f": 3, "g|h": 4, "i\\\\j": 5,
           "k\\"l": 6, " ": 7, "m~n": 8}
          """);

  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "/foo   # [\"bar\",\"baz\"]",
        "/foo/0 # \"bar\"",
        "/      # 0",
        "/a~1b  # 1",
        "/c%d   # 2",
        "/e^f   # 3",
        "/g|h   # 4",
        "/i\\j  # 5",
        "/k\"l  # 6",
        "`/ `   # 7",
        "/m~0n  # 8",
      })
  void examples(String pointer, String expected) {
    assertEquals(
        List.of(expected),
        JsonQuery.parse(pointer).find(DOCUMENT).stream()
            .map(found -> found.node().toString())
            .toList());
  }

  @ParameterizedTest
  @CsvSource({"/foo/2", "/foo/-", "/foo/01", "/nothing", "/foo/0/x"})
  void nothingThere(String pointer) {
    assertEquals(List.of(), JsonQuery.parse(pointer).find(DOCUMENT));
  }
}
