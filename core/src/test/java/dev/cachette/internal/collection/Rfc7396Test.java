package dev.cachette.internal.collection;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.internal.json.Json;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The test cases of RFC 7396, appendix A. */
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
}
