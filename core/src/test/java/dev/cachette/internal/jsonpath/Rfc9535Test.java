// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Json;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The examples of RFC 9535, by section. Results are in the order of the document. */
class Rfc9535Test {

  /** Section 2.3.1.3, 2.3.2.3, 2.3.3.3, 2.3.4.3. */
  @ParameterizedTest(name = "{1} in {0}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "{\"o\": {\"j j\": {\"k.k\": 3}}, \"'\": {\"@\": 2}} # $.o['j j']             #"
            + " {\"k.k\":3}",
        "{\"o\": {\"j j\": {\"k.k\": 3}}, \"'\": {\"@\": 2}} # $.o['j j']['k.k']      # 3",
        "{\"o\": {\"j j\": {\"k.k\": 3}}, \"'\": {\"@\": 2}} # $.o[\"j j\"][\"k.k\"]  # 3",
        "{\"o\": {\"j j\": {\"k.k\": 3}}, \"'\": {\"@\": 2}} # $[\"'\"][\"@\"]        # 2",
        "{\"o\": {\"j\": 1, \"k\": 2}, \"a\": [5, 3]} # $[*]         # {\"j\":1,\"k\":2} [5,3]",
        "{\"o\": {\"j\": 1, \"k\": 2}, \"a\": [5, 3]} # $.o[*]       # 1 2",
        "{\"o\": {\"j\": 1, \"k\": 2}, \"a\": [5, 3]} # $.o[*, *]    # 1 2 1 2",
        "{\"o\": {\"j\": 1, \"k\": 2}, \"a\": [5, 3]} # $.a[*]       # 5 3",
        "[\"a\",\"b\"] # $[1]  # \"b\"",
        "[\"a\",\"b\"] # $[-2] # \"a\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[1:3]    # \"b\" \"c\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[5:]     # \"f\" \"g\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[1:5:2]  # \"b\" \"d\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[5:1:-2] # \"f\" \"d\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[::-1]   "
            + "# \"g\" \"f\" \"e\" \"d\" \"c\" \"b\" \"a\"",
        // Sections 2.5.1.3 and 2.5.2.3.
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[0, 3]   # \"a\" \"d\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[0:2, 5] # \"a\" \"b\" \"f\"",
        "[\"a\",\"b\",\"c\",\"d\",\"e\",\"f\",\"g\"] # $[0, 0]   # \"a\" \"a\"",
        "{\"o\":{\"j\":1,\"k\":2},\"a\":[5,3,[{\"j\":4},{\"k\":6}]]} # $..j    # 1 4",
        "{\"o\":{\"j\":1,\"k\":2},\"a\":[5,3,[{\"j\":4},{\"k\":6}]]} # $..[0]  # 5 {\"j\":4}",
        "{\"o\":{\"j\":1,\"k\":2},\"a\":[5,3,[{\"j\":4},{\"k\":6}]]} # $..o    # {\"j\":1,\"k\":2}",
        "{\"o\":{\"j\":1,\"k\":2},\"a\":[5,3,[{\"j\":4},{\"k\":6}]]} # $.o..[*, *] # 1 2 1 2",
        "{\"o\":{\"j\":1,\"k\":2},\"a\":[5,3,[{\"j\":4},{\"k\":6}]]} # $.a..[0, 1] "
            + "# 5 3 {\"j\":4} {\"k\":6}",
        // Section 2.6.1: null.
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.a            # null",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.a[0]         # ",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.a.d          # ",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.b[0]         # null",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.b[*]         # null",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.b[?@]        # null",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.b[?@==null]  # null",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.c[?@.d==null] # ",
        "{\"a\": null, \"b\": [null], \"c\": [{}], \"null\": 1} # $.null         # 1",
      })
  void selectors(String document, String query, String expected) {
    assertEquals(expected == null ? "" : expected, found(document, query));
  }

  private static final String FILTERED =
      """
      {"a": [3, 5, 1, 2, 4, 6, {"b": "j"}, {"b": "k"}, {"b": {}}, {"b": "kilo"}],
       "o": {"p": 1, "q": 2, "r": 3, "s": 5, "t": {"u": 6}}, "e": "f"}
      """;

  /** Section 2.3.5.3, table 12. */
  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "$.a[?@.b == 'kilo']                    # {\"b\":\"kilo\"}",
        "$.a[?(@.b == 'kilo')]                  # {\"b\":\"kilo\"}",
        "$.a[?@>3.5]                            # 5 4 6",
        "$.a[?@.b]                              "
            + "# {\"b\":\"j\"} {\"b\":\"k\"} {\"b\":{}} {\"b\":\"kilo\"}",
        "$[?@.*]                                "
            + "# [3,5,1,2,4,6,{\"b\":\"j\"},{\"b\":\"k\"},{\"b\":{}},{\"b\":\"kilo\"}]"
            + " {\"p\":1,\"q\":2,\"r\":3,\"s\":5,\"t\":{\"u\":6}}",
        "$[?@[?@.b]]                            "
            + "# [3,5,1,2,4,6,{\"b\":\"j\"},{\"b\":\"k\"},{\"b\":{}},{\"b\":\"kilo\"}]",
        "$.o[?@<3, ?@<3]                        # 1 2 1 2",
        "$.a[?@<2 || @.b == \"k\"]              # 1 {\"b\":\"k\"}",
        "$.a[?match(@.b, \"[jk]\")]             # {\"b\":\"j\"} {\"b\":\"k\"}",
        "$.a[?search(@.b, \"[jk]\")]            # {\"b\":\"j\"} {\"b\":\"k\"} {\"b\":\"kilo\"}",
        "$.o[?@>1 && @<4]                       # 2 3",
        "$.o[?@.u || @.x]                       # {\"u\":6}",
        "$.a[?@.b == $.x]                       # 3 5 1 2 4 6",
        "$.a[?@ == @]                           "
            + "# 3 5 1 2 4 6 {\"b\":\"j\"} {\"b\":\"k\"} {\"b\":{}} {\"b\":\"kilo\"}",
      })
  void filters(String query, String expected) {
    assertEquals(expected, found(FILTERED, query));
  }

  /** Section 2.3.5.3, table 11: a comparison holds or not, on this document. */
  @ParameterizedTest(name = "{0} is {1}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "$.absent1 == $.absent2 # true",
        "$.absent1 <= $.absent2 # true",
        "$.absent == 'g'        # false",
        "$.absent1 != $.absent2 # false",
        "$.absent != 'g'        # true",
        "1 <= 2                 # true",
        "1 > 2                  # false",
        "13 == '13'             # false",
        "'a' <= 'b'             # true",
        "'a' > 'b'              # false",
        "$.obj == $.arr         # false",
        "$.obj != $.arr         # true",
        "$.obj == $.obj         # true",
        "$.obj != $.obj         # false",
        "$.arr == $.arr         # true",
        "$.arr != $.arr         # false",
        "$.obj == 17            # false",
        "$.obj != 17            # true",
        "$.obj <= $.arr         # false",
        "$.obj < $.arr          # false",
        "$.obj <= $.obj         # true",
        "$.arr <= $.arr         # true",
        "1 <= $.arr             # false",
        "1 >= $.arr             # false",
        "1 > $.arr              # false",
        "1 < $.arr              # false",
        "true <= true           # true",
        "true > true            # false",
      })
  void comparisons(String comparison, boolean holds) {
    String document = "{\"obj\": {\"x\": \"y\"}, \"arr\": [2, 3], \"one\": [1]}";

    assertEquals(holds ? "1" : "", found(document, "$.one[?" + comparison + "]"));
  }

  /** Sections 2.4.4 to 2.4.8. */
  @ParameterizedTest(name = "{0}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "$[?length(@.authors) >= 5]           # ",
        "$[?length(@.authors) == 2]           #"
            + " {\"authors\":[\"a\",\"b\"],\"date\":\"1974-05-11\"}",
        "$[?count(@.*) == 2]                  #"
            + " {\"authors\":[\"a\",\"b\"],\"date\":\"1974-05-11\"}",
        "$[?match(@.date, \"1974-05-..\")]    #"
            + " {\"authors\":[\"a\",\"b\"],\"date\":\"1974-05-11\"}",
        "$[?match(@.date, \"1974\")]          # ",
        "$[?search(@.date, \"1974\")]         #"
            + " {\"authors\":[\"a\",\"b\"],\"date\":\"1974-05-11\"}",
        "$[?value(@..date) == \"1974-05-11\"] #"
            + " {\"authors\":[\"a\",\"b\"],\"date\":\"1974-05-11\"}",
      })
  void functions(String query, String expected) {
    String document = "[{\"authors\":[\"a\",\"b\"],\"date\":\"1974-05-11\"},{\"other\":1}]";

    assertEquals(expected == null ? "" : expected, found(document, query));
  }

  /** Not well-formed or not valid: sections 2.1.1, 2.4.9 and others. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "$[?length(@.*) < 3]",
        "$[?count(1) == 1]",
        "$[?count(foo(@.*)) == 1]",
        "$[?match(@.timezone, 'Europe/.*') == true]",
        "$[?value(@..color)]",
        "$[?(@.a)==1",
        "$.",
        "$..",
        "$[",
        "$[]",
        "$[01]",
        "$[-0]",
        "$[1:2:]x",
        "$['a",
        "$['\\x']",
        "$.1",
        "$[?@.a = 1]",
        "$[?@.a === 1]",
        "$[9007199254740992]",
        "$[?'a']",
        "$[?@ < ]",
        " $",
        "$ ",
      })
  void refused(String query) {
    assertThrows(IllegalArgumentException.class, () -> JsonPath.parse(query));
  }

  private static String found(String document, String query) {
    JsonNode root = Json.tree(document);
    return JsonPath.parse(query).find(root).stream()
        .map(located -> located.node().toString())
        .collect(Collectors.joining(" "));
  }
}
