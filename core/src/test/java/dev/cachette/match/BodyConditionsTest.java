// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import static dev.cachette.match.Bodies.containsJson;
import static dev.cachette.match.Bodies.jsonAt;
import static dev.cachette.match.Bodies.jsonSchema;
import static dev.cachette.match.Bodies.sameJson;
import static dev.cachette.match.Bodies.sameXml;
import static dev.cachette.match.Bodies.soap;
import static dev.cachette.match.Bodies.xpath;
import static dev.cachette.match.Values.atMost;
import static dev.cachette.match.Values.startsWith;
import static java.util.Map.entry;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.match.Verdict;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Conditions on bodies, and why a body does not meet them, in the file {@code conditions.txt}: a
 * condition, a body, an arrow, and the differences; none if it holds.
 */
class BodyConditionsTest {

  private static final String SCHEMA =
      """
      {"type": "object", "required": ["vessel", "crew"],
       "properties": {
         "vessel": {"type": "object", "properties": {"name": {"type": "string", "maxLength": 9}}},
         "crew": {"type": "integer", "minimum": 1, "maximum": 30},
         "flag": {"enum": ["north", "south", null]},
         "code": {"type": "string", "pattern": "^[A-Z]{2}$"},
         "stops": {"type": "array", "minItems": 1, "uniqueItems": true,
           "items": {"type": "string", "format": "date"}},
         "kind": {"const": "arrival"},
         "cargo": {"oneOf": [{"type": "string"}, {"type": "number", "multipleOf": 5}]},
         "berth": {"not": {"type": "null"}},
         "tide": {"anyOf": [{"type": "integer"}, {"$ref": "#/$defs/tide"}]}},
       "additionalProperties": false, "$defs": {"tide": {"type": "string", "minLength": 4}}}
      """;

  private static final Map<String, Condition> CONDITIONS =
      Map.ofEntries(
          entry("schema", jsonSchema(SCHEMA)),
          entry("same", sameJson("{\"vessel\":{\"name\":\"Fulmar\"},\"stops\":[1,2]}")),
          entry("any order", sameJson("{\"stops\":[{\"a\":1},{\"a\":2}]}").anyOrder()),
          entry("ignoring", sameJson("{\"id\":0,\"stops\":[{\"id\":0}]}").ignoring("$..id")),
          entry("contains", containsJson("{\"vessel\":{\"name\":\"Fulmar\"}}")),
          entry("at", jsonAt("$.vessel.draught", atMost(4))),
          entry("each at", jsonAt("$.stops[*].pier", startsWith("N"))),
          entry("pointer", jsonAt("/vessel/a~1b", "x")),
          entry("xpath", xpath("/cargo/item/@tons", atMost(4))),
          entry("count", xpath("count(/cargo/item)", 2)),
          entry("exists", xpath("/cargo/item[2]", "fish")),
          entry("prefixed", xpath("/c:cargo/c:item", startsWith("f"), Map.of("c", "urn:customs"))),
          entry("xml", sameXml("<cargo kind='dry'><item tons='4'>fish</item><item/></cargo>")),
          entry("mixed", sameXml("<note>to <b>Mara</b> at noon</note>")),
          entry("soap", soap().version("1.2").element("urn:customs", "Declare")));

  static Stream<String> lines() throws Exception {
    try (InputStream in = BodyConditionsTest.class.getResourceAsStream("/conditions.txt")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8)
          .lines()
          .filter(line -> !line.isBlank() && !line.startsWith("#"));
    }
  }

  @ParameterizedTest
  @MethodSource("lines")
  void eachBodyIsTested(String line) {
    String[] sides = line.split(" =>", 2);
    String[] given = sides[0].split(" \\| ", 2);
    String body = given.length > 1 ? given[1] : "";
    String type = body.startsWith("<") ? "application/xml" : "application/json";
    Condition condition =
        Optional.ofNullable(CONDITIONS.get(given[0])).orElseThrow(IllegalArgumentException::new);
    Request request =
        new Request(
            "POST",
            Uri.parse("https://customs.example/v1/cargo"),
            Headers.none().with("content-type", type),
            Body.of(body));

    RequestPattern pattern = RequestPattern.of("POST /v1/cargo").where(condition);
    String said = said(MatchInternals.examine(pattern, request));

    assertEquals(line, sides[0] + " =>" + said);
    assertEquals(said.isEmpty(), pattern.match(request).isPresent());
  }

  private static String said(Verdict verdict) {
    return verdict.misses().stream()
        .flatMap(check -> check.differences().stream())
        .map(
            it ->
                (it.at().isEmpty() ? " " : " " + it.at() + ": ")
                    + it.expected()
                    + ", actual "
                    + it.actual()
                    + it.cause().map(why -> " (" + why + ")").orElse(""))
        .collect(Collectors.joining(" ;"));
  }
}
