// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.collection;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.Generator;
import dev.cachette.internal.json.Json;
import jakarta.json.JsonValue;
import java.io.StringReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The test cases of RFC 7396, appendix A, and generated ones. */
class Rfc7396Test {

  @ParameterizedTest(name = "{0} patched by {1}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "{\"a\":\"b\"}                  # {\"a\":\"c\"}                   # {\"a\":\"c\"}",
        "{\"a\":\"b\"}                  # {\"b\":\"c\"}                   #"
            + " {\"a\":\"b\",\"b\":\"c\"}",
        "{\"a\":\"b\"}                  # {\"a\":null}                    # {}",
        "{\"a\":\"b\",\"b\":\"c\"}      # {\"a\":null}                    # {\"b\":\"c\"}",
        "{\"a\":[\"b\"]}                # {\"a\":\"c\"}                   # {\"a\":\"c\"}",
        "{\"a\":\"c\"}                  # {\"a\":[\"b\"]}                 # {\"a\":[\"b\"]}",
        "{\"a\":{\"b\":\"c\"}}          # {\"a\":{\"b\":\"d\",\"c\":null}} # {\"a\":{\"b\":\"d\"}}",
        "{\"a\":[{\"b\":\"c\"}]}        # {\"a\":[1]}                     # {\"a\":[1]}",
        "[\"a\",\"b\"]                  # [\"c\",\"d\"]                   # [\"c\",\"d\"]",
        "{\"a\":\"b\"}                  # [\"c\"]                         # [\"c\"]",
        "{\"a\":\"foo\"}                # null                            # null",
        "{\"a\":\"foo\"}                # \"bar\"                         # \"bar\"",
        "{\"e\":null}                   # {\"a\":1}                       # {\"e\":null,\"a\":1}",
        "[1,2]                          # {\"a\":\"b\",\"c\":null}        # {\"a\":\"b\"}",
        "{}                             # {\"a\":{\"bb\":{\"ccc\":null}}} # {\"a\":{\"bb\":{}}}",
      })
  void cases(String original, String patch, String result) {
    assertEquals(Json.tree(result), MergePatch.apply(Json.tree(original), Json.tree(patch)));
  }

  /** Another implementation gives the same results. */
  @Test
  void patchesAsElsewhere() {
    for (int seed = 0; seed < 2_000; seed++) {
      Generator generator = new Generator(seed);
      JsonNode target = generator.object(3);
      JsonNode patch = generator.object(3);

      JsonNode patched = MergePatch.apply(target.deepCopy(), patch);

      assertEquals(
          jakarta.json.Json.createMergePatch(parsed(patch)).apply(parsed(target)),
          parsed(patched),
          "seed " + seed + ": " + target + " patched with " + patch);
    }
  }

  private static JsonValue parsed(JsonNode json) {
    return jakarta.json.Json.createReader(new StringReader(json.toString())).readValue();
  }
}
