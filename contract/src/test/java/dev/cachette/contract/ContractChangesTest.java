// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.verification.ContractChange;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Changes between two versions of a contract. */
class ContractChangesTest {

  private static final String CLAUSE =
      """
        - name: free berths
          request: GET https://berths.example/v1/berths
          answer: { status: 200, json: { a: 1 } }
          given: a berth is free
          example: { method: GET, url: https://berths.example/v1/berths }
          shape: { mediaType: application/json, headers: { etag: { type: string } }, body: %s }
      """;

  @TempDir private Path folder;

  static Stream<Arguments> changes() {
    return Tables.read("changes.txt").stream().map(lines -> Arguments.of((Object) lines));
  }

  @ParameterizedTest
  @MethodSource("changes")
  void ofShapes(String[] lines) throws IOException {
    assertEquals(
        Arrays.stream(lines).skip(2).collect(Collectors.joining("\n")),
        compared(CLAUSE.formatted(lines[0]), CLAUSE.formatted(lines[1])));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "a berth is free | no berth is free | + given: a berth is free -> no berth is free",
        "'    given: a berth is free\n' | '' | - given: gone: a berth is free",
        "status: 200 | status: 201 | + status: 200 -> 201",
        "application/json | application/problem+json | + media type: application/json ->"
            + " application/problem+json",
        "'headers: { etag: { type: string } },' | '' | - header etag: gone: a string",
        "'etag: { type: string }' | 'etag: { type: string }, link: { type: string }' | + header"
            + " link: new: a string",
        "'name: free berths' | 'name: all berths' | - name: free berths -> all berths",
        "'request: GET https://berths.example/v1/berths' | 'request: GET"
            + " https://berths.example/v2/berths' | + request: GET https://berths.example/v1/berths"
            + " -> GET https://berths.example/v2/berths",
        "'    answer' | '    query: { day: { present: true } }\n"
            + "    answer' | + request: no conditions -> {\"query\":{\"day\":{\"present\":true}}}",
        "'/v1/berths }' | '/v1/berths, json: { a: 1 } }' | + example: the body that is sent -> one"
            + " of another shape",
      })
  void ofClauses(String part, String replacement, String expected) throws IOException {
    String before = CLAUSE.formatted("{ type: object }");
    String after = before.replace(part, replacement == null ? "" : replacement);

    assertEquals(expected, compared(before, after));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "one | one, two | + new: GET https://berths.example/two with status 200",
        "one, two | two | - gone: GET https://berths.example/one with status 200",
        "one, two | two, one | ''",
      })
  void clausesComeAndGo(String before, String after, String expected) throws IOException {
    assertEquals(expected, compared(clauses(before), clauses(after)));
  }

  private static String clauses(String names) {
    return Arrays.stream(names.split(", "))
        .map(
            it ->
                """
                  - request: GET https://berths.example/%1$s
                    answer: { json: {} }
                    example: { method: GET, url: https://berths.example/%1$s }
                    shape: { mediaType: application/json }
                """
                    .formatted(it))
        .collect(Collectors.joining());
  }

  private String compared(String before, String after) throws IOException {
    List<ContractChange> changes = Contracts.compare(file("before", before), file("after", after));
    return changes.stream()
        .map(it -> (it.asksMore() ? "+ " : "- ") + it.toString().substring("asks more  ".length()))
        .collect(Collectors.joining("\n"));
  }

  private Path file(String name, String clauses) throws IOException {
    return Files.writeString(
        folder.resolve(name + ".contract.yaml"),
        "contract: { consumer: harbour-desk, provider: berths, origin: https://berths.example }\n"
            + "stubs:\n"
            + clauses);
  }
}
