// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Json;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Queries of every kind that RFC 9535 has, on the harbour's own data. */
class JsonPathTest {

  private static final JsonNode HARBOUR =
      Json.tree(
          """
          {"harbour": {
             "berths": [
               {"id": "B-1", "depth": 3.5, "for": ["sail"], "note": null},
               {"id": "B-2", "depth": 5.0, "for": ["sail", "cargo"], "vessel": "Kittiwake"},
               {"id": "B-3", "depth": 8, "for": [], "vessel": "Skua"},
               {"id": "B-4", "depth": 5, "for": ["cargo"]}],
             "pilot-boat": {"id": "P-1", "depth": 1.2}},
           "limit": 5,
           "o": {"j": 1, "k": 2}, "e": [], "t": "\\ud83d\\udea2x"}
          """);

  @ParameterizedTest(name = "{0}  finds  {1}")
  @CsvSource(
      delimiter = '#',
      quoteCharacter = '`',
      value = {
        "$.limit                                   # 5",
        "$['limit']                                # 5",
        "$ [\"limit\"]                             # 5",
        "$.harbour.berths[1].id                    # \"B-2\"",
        "$.harbour.berths[-1].id                   # \"B-4\"",
        "$.harbour.berths[9].id                    # ",
        "$.harbour['pilot-boat'].depth             # 1.2",
        "$.harbour.berths[*].id                    # \"B-1\" \"B-2\" \"B-3\" \"B-4\"",
        "$..depth                                  # 3.5 5.0 8 5 1.2",
        "$..berths[0, 2]['id', 'depth']            # \"B-1\" 3.5 \"B-3\" 8",
        "$.harbour.berths[1:3].id                  # \"B-2\" \"B-3\"",
        "$.harbour.berths[::2].id                  # \"B-1\" \"B-3\"",
        "$.harbour.berths[::-1].id                 # \"B-4\" \"B-3\" \"B-2\" \"B-1\"",
        "$.harbour.berths[3:0:-2].id               # \"B-4\" \"B-2\"",
        "$.harbour.berths[-2:].id                  # \"B-3\" \"B-4\"",
        "$.harbour.berths[::0]                     # ",
        "$.harbour.berths[?@.vessel].id            # \"B-2\" \"B-3\"",
        "$.harbour.berths[?!@.vessel].id           # \"B-1\" \"B-4\"",
        "$.harbour.berths[?@.depth >= 5].id        # \"B-2\" \"B-3\" \"B-4\"",
        "$.harbour.berths[?@.depth==$.limit].id    # \"B-2\" \"B-4\"",
        "$.harbour.berths[?@.depth<5||@.vessel=='Skua'].id  # \"B-1\" \"B-3\"",
        "$.harbour.berths[?@.depth>4 && !(@.vessel=='Skua')].id  # \"B-2\" \"B-4\"",
        "$.harbour.berths[?@.note==null].id        # \"B-1\"",
        "$.harbour.berths[?@.vessel==@.pier].id    # \"B-1\" \"B-4\"",
        "$.harbour.berths[?@.for[?@=='cargo']].id  # \"B-2\" \"B-4\"",
        "$.harbour.berths[?length(@.for)==2].id    # \"B-2\"",
        "$.harbour.berths[?count(@.for[*])<1].id   # \"B-3\"",
        "$.harbour.berths[?value(@.for[*])=='sail'].id           # \"B-1\"",
        "$.harbour.berths[?match(@.vessel, 'K.*e')].id           # \"B-2\"",
        "$.harbour.berths[?match(@.vessel, 'K')].id              # ",
        "$.harbour.berths[?search(@.vessel, 'ku|tt')].id         # \"B-2\" \"B-3\"",
        "$.harbour.berths[?'B-3' < @.id].id        # \"B-4\"",
        "$.harbour.berths[?@.vessel < 'L'].id      # \"B-2\"",
        "$.harbour.berths[?@.vessel <= @.pier].id  # \"B-1\" \"B-4\"",
        "$.o[?@ > 1]                               # 2",
        "$.o.*                                     # 1 2",
        "$.e[?true==false]                         # ",
        "$.o[?length($.t)==2]                      # 1 2",
        "$.t                                       # \"\ud83d\udea2x\"",
      })
  void finds(String query, String expected) {
    String found =
        JsonPath.parse(query).find(HARBOUR).stream()
            .map(located -> located.node().toString())
            .collect(Collectors.joining(" "));

    assertEquals(expected == null ? "" : expected, found);
  }

  @ParameterizedTest(name = "{0}: {1}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "harbour               | column 1: a JSONPath must begin with $",
        "$.                    | column 3: a dot must be followed by a name",
        "$harbour              | column 2: unexpected content after the query",
        "$.pilot-boat          | column 8: unexpected content after the query",
        "$[                    | column 3: expected a name in quotes",
        "$['a                  | column 5: missing closing quote",
        "$['\\x']              | column 5: \\x is not an escape sequence",
        "$[1                   | column 4: \"]\" is missing",
        "$[01]                 | column 4: \"]\" is missing",
        "$[99999999999999999]  | column 3: this number is too large",
        "$[?@.a==@.*]          | column 9: a query that can select several",
        "$[?1]                 | column 4: a value alone",
        "$[?length(@.*)==1]    | column 11: a query that can select several",
        "$[?count(1)==1]       | column 10: this function needs a query",
        "$[?depth(@)==1]       | column 10: unknown function \"depth\"",
        "$[?!@.a==1]           | column 4: a comparison is negated",
        "$[?@.a==]             | column 9: expected a query, a string in quotes",
      })
  void malformedInputIsRefusedWithItsPlace(String query, String expected) {
    var refused = assertThrows(IllegalArgumentException.class, () -> JsonPath.parse(query));

    assertTrue(
        refused.getMessage().startsWith("Malformed JSONPath (RFC 9535), at " + expected),
        refused::getMessage);
    assertTrue(refused.getMessage().contains("^\n\nFix: "), refused::getMessage);
  }

  @Test
  void resultsHaveTheirPlace() {
    var found = JsonPath.parse("$..['pilot-boat', 'vessel']").find(HARBOUR);

    assertEquals("$.harbour['pilot-boat']", found.get(0).path());
    assertEquals("$.harbour.berths[1].vessel", found.get(1).path());
  }
}
