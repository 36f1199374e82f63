// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Mistakes in a description, in the file {@code problems.txt}: a description, an arrow, and the
 * problems, each with its place; none if it is right.
 */
class DescriptionProblemsTest {

  static Stream<String> lines() {
    return TestFiles.resource("problems.txt")
        .lines()
        .filter(line -> !line.isBlank() && !line.startsWith("#"));
  }

  @ParameterizedTest
  @MethodSource("lines")
  void eachProblemIsNamed(String line) {
    String[] sides = line.split(" =>", 2);
    String said;
    try {
      Description description =
          Description.read(
              new TestFiles(
                  "a.yaml",
                  Map.of(
                      "a.yaml", text(sides[0]),
                      "b.yaml", "ok: { type: integer }\nloop: { $ref: '#/loop' }\n",
                      "bad.yaml", "ok: [ 1\n",
                      "empty.yaml", "")));
      said =
          description.problems().stream()
              .map(it -> " " + it.place() + " " + it.problem())
              .collect(Collectors.joining(" ;"));
    } catch (MalformedDescription malformed) {
      said = " " + malformed.place() + " " + malformed.problem();
    }
    assertEquals(line, sides[0] + " =>" + said.replace("\n", "\\n"));
  }

  /** Completes what stands for a whole description, an operation, or a schema. */
  private static String text(String line) {
    int at = line.indexOf(": ");
    String what = line.substring(0, at);
    String rest = line.substring(at + 2).replace("\\n", "\n");
    String operation =
        switch (what) {
          case "schema" ->
              "responses: { '200': { content: { application/json: { schema: " + rest + " } } } }";
          case "media" -> "responses: { '200': { content: { application/json: " + rest + " } } }";
          case "operation" -> rest;
          default -> "";
        };
    return operation.isEmpty()
        ? rest
        : "openapi: 3.1.0\npaths:\n  /a:\n    get: { " + operation + " }\n";
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "openapi: 3.1.0               | true",
        "{\"openapi\": \"3.0.3\"}     | true",
        "'swagger: \"2.0\"'           | true",
        "openapi: [                   | false",
        "note: openapi                | false",
        "stubs: [{ text: 'openapi: 3.1.0' }] | false",
        "openapi: yes                 | false",
        "''                           | false",
      })
  void descriptionsAreTold(String text, boolean is) {
    assertEquals(is, Description.isOne(text));
  }

  @Test
  void itKnowsItsFilesOperationsAndOrigins() {
    Description harbour = TestFiles.harbour();
    assertEquals(List.of("https://marrow.example"), harbour.origins());
    assertEquals(List.of(), harbour.problems());
    assertEquals(List.of("harbour.openapi.yaml", "shared.yaml"), harbour.files());
    assertEquals("harbour.openapi.yaml (Harbour)", harbour.toString());
    assertEquals("harbour.openapi.yaml", harbour.name());
    assertTrue(harbour.operations().toString().contains("POST /bookings"), harbour::toString);
    assertEquals(
        Map.of("201", List.of("application/json"), "422", List.of()),
        harbour.documented().entrySet().stream()
            .filter(it -> it.getKey().name().equals("POST /bookings"))
            .findFirst()
            .orElseThrow()
            .getValue());
  }

  @Test
  void aNameWithoutATitleIsThatOfTheFile() {
    assertEquals("a.yaml", TestFiles.described("openapi: 3.0.0").toString());
    assertThrows(MalformedDescription.class, () -> TestFiles.described("openapi: 4"));
  }
}
