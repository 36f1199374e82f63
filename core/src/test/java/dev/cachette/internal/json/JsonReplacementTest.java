// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Values at selected places are replaced, and everything else is copied. */
class JsonReplacementTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"a\":1,\"b\":[2,{\"a\":3}]} | $.a        | {\"a\":0,\"b\":[2,{\"a\":3}]}",
        "{\"a\":1,\"b\":[2,{\"a\":3}]} | $..a       | {\"a\":0,\"b\":[2,{\"a\":0}]}",
        "{\"a\":1,\"b\":[2,{\"a\":3}]} | /b/1/a     | {\"a\":1,\"b\":[2,{\"a\":0}]}",
        "{\"a\":1,\"b\":[2,{\"a\":3}]} | $.b[*]     | {\"a\":1,\"b\":[0,0]}",
        "{\"a\":1.50,\"b\":null}       | $.b        | {\"a\":1.50,\"b\":0}",
        "[12345678901234567890,true]   | $[1]       | [12345678901234567890,0]",
        "{\"a\":1}                     | $          | 0",
        "{\"a\":1}                     | $.c        | nothing",
        "{\"a\":1}                     | /a/b       | nothing",
      })
  void valuesAreReplaced(String json, String path, String expected) {
    assertEquals(
        expected,
        JsonReplacement.of(Json.tree(json), JsonQuery.parse(path), StubNodes.flag(false))
            .map(changed -> Json.text(changed).replace("false", "0"))
            .orElse("nothing"));
  }
}
