// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.content.Content;
import dev.cachette.result.Difference;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A JSON value in each line. */
class JsonLinesTest {

  private static final String ARRIVALS =
      """
      {"vessel": "Kittiwake", "draught": 4.20, "seen": "04:10"}
      {"vessel": "Fulmar", "draught": 3, "seen": "04:12"}
      """;

  private static Content lines(String text) {
    return content("application/x-ndjson", text);
  }

  private static Content content(String type, String text) {
    return Content.of(Headers.none().with("content-type", type), Body.of(text));
  }

  private static List<Difference> differences(String expected, String actual, String... ignored) {
    Ignored places = new Ignored(List.of(ignored), List.of(), List.of());
    return BodyFormats.differences(lines(expected), lines(actual), places);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "application/x-ndjson",
        "application/ndjson; charset=utf-8",
        "application/jsonl",
        "application/x-jsonlines",
        "application/jsonlines",
        "application/json-seq"
      })
  void layoutIsNotCompared(String type) {
    String other =
        "{\"draught\":4.2,\"seen\":\"04:10\",\"vessel\":\"Kittiwake\"}\r\n\r\n"
            + "\u001e{\"vessel\":\"Fulmar\",\"draught\":3.0,\"seen\":\"04:12\"}";
    Content expected = content(type, ARRIVALS);
    Content actual = content(type, other);

    assertEquals(List.of(), BodyFormats.differences(expected, actual, Ignored.NOTHING));
    assertEquals(
        BodyFormats.canonical(expected, Ignored.NOTHING),
        BodyFormats.canonical(actual, Ignored.NOTHING));
  }

  @Test
  void aDifferenceHasItsLineAndPath() {
    List<Difference> found = differences(ARRIVALS, ARRIVALS.replace("3,", "\"3\","));

    assertEquals(1, found.size(), found.toString());
    assertEquals("$[1].draught", found.get(0).at());
    assertEquals(Difference.Kind.STRING_FOR_NUMBER, found.get(0).kind());
  }

  @Test
  void pathsIgnoreMembersOfAllLines() {
    String later = ARRIVALS.replace("04:1", "05:3");
    Ignored seen = Ignored.json("$[*].seen");

    assertEquals(2, differences(ARRIVALS, later).size());
    assertEquals(List.of(), differences(ARRIVALS, later, "$[*].seen"));
    assertEquals(List.of(), differences(ARRIVALS, later, "$..seen"));
    assertEquals(
        BodyFormats.canonical(lines(ARRIVALS), seen), BodyFormats.canonical(lines(later), seen));
    assertNotEquals(
        BodyFormats.canonical(lines(ARRIVALS), Ignored.NOTHING),
        BodyFormats.canonical(lines(later), Ignored.NOTHING));
  }

  @Test
  void changesAreThoseOfMembers() {
    List<BodyChange> changes =
        BodyFormats.changes(
            lines(ARRIVALS),
            lines(ARRIVALS.replace("\"seen\": \"04:12\"", "\"at\": 1")),
            Ignored.NOTHING);

    assertEquals(
        List.of("GONE $[*].seen", "NEW $[*].at"),
        changes.stream().map(it -> it.kind() + " " + it.place()).toList());
  }

  @Test
  void aLineThatIsNotJsonIsNamed() {
    List<Difference> found = differences(ARRIVALS, ARRIVALS + "{\"vessel\": }\n");

    assertEquals("lines of JSON", found.get(0).expected());
    assertEquals(
        "line 3, which is not JSON: line 1, column 12: Unexpected character ('}'): expected a"
            + " value, near {\"vessel\": }",
        found.get(0).actual());
  }

  @Test
  void malformedLinesAreComparedAsText() {
    assertEquals(List.of(), differences("{a\n{b\n", "{a\r\n{b\r\n"));
    List<Difference> found = differences("{a\n{b\n", "{a\n{c\n");
    assertEquals("line 2, character 2", found.get(0).at());
  }

  @Test
  void anEmptyBodyHasNoLines() {
    assertEquals(List.of(), differences("", "\n\n"));
    assertEquals("an array of 2", differences("", ARRIVALS).get(0).actual());
  }
}
