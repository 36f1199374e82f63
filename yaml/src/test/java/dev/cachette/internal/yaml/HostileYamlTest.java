// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.yaml;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** YAML that is deep, long, or not whole: a problem with its place, and never an exception. */
@Timeout(60)
class HostileYamlTest {

  private static final String TOO_DEEP = "more than 1000 levels of nested values.";

  private final List<String> problems = new ArrayList<>();

  static Stream<Arguments> refused() {
    return Stream.of(
        Arguments.of("[".repeat(100_000), "1:1001: " + TOO_DEEP),
        Arguments.of("[".repeat(100_000) + "]".repeat(100_000), "1:1001: " + TOO_DEEP),
        Arguments.of("{a: ".repeat(100_000) + "}".repeat(100_000), "1:3998: " + TOO_DEEP),
        Arguments.of("{\"a\":".repeat(50_000) + "1" + "}".repeat(50_000), "1:4997: " + TOO_DEEP),
        Arguments.of("- ".repeat(5_000) + "a", "1:2001: " + TOO_DEEP),
        Arguments.of(
            IntStream.range(0, 2_000)
                .mapToObj(at -> " ".repeat(at) + "a:\n")
                .collect(Collectors.joining()),
            "1000:1000: " + TOO_DEEP),
        Arguments.of(
            "x0: &x0 [1]\n"
                + IntStream.range(1, 20_000)
                    .mapToObj(at -> "x" + at + ": &x" + at + " [*x" + (at - 1) + "]\n")
                    .collect(Collectors.joining()),
            "999:14: " + TOO_DEEP),
        Arguments.of(
            "x0: &x0 [1]\n"
                + IntStream.range(1, 30)
                    .mapToObj(
                        at ->
                            "x" + at + ": &x" + at + " [*x" + (at - 1) + ", *x" + (at - 1) + "]\n")
                    .collect(Collectors.joining()),
            "23:1: it expands to more than 10000000 values."),
        Arguments.of("a: &a [*a]", "1:8: it contains itself, by an alias."),
        Arguments.of("a: \"abc", "1:8: not valid YAML: while scanning a quoted scalar"),
        Arguments.of("a: 'abc\n", "2:1: not valid YAML: while scanning a quoted scalar"),
        Arguments.of("a: { b: c", "1:10: not valid YAML: while parsing a flow mapping"),
        Arguments.of("a: [ b, c\n", "2:1: not valid YAML: while parsing a flow sequence"),
        Arguments.of("a: *x", "1:4: unknown anchor &x before this alias."),
        Arguments.of("a: &", "1:5: not valid YAML: while scanning an anchor"),
        Arguments.of("a: \"\\", "1:6: not valid YAML: while scanning a double-quoted scalar"),
        Arguments.of("a: \"\\u00", "1:9: not valid YAML: while scanning a quoted scalar"));
  }

  @ParameterizedTest
  @MethodSource("refused")
  void isAProblemWithItsPlace(String text, String problem) {
    read(text);

    assertEquals(1, problems.size(), problems::toString);
    assertTrue(problems.get(0).startsWith(problem), () -> problems.get(0) + " <> " + problem);
  }

  @Test
  void aThousandLevelsAreRead() {
    assertTrue(read("[".repeat(1_000) + "]".repeat(1_000)).isPresent());
    assertEquals(List.of(), problems);
  }

  /** In quadratic time, these took minutes. */
  @Test
  void longStringsAreRead() {
    String part = "a long string ";
    String plain = part.repeat(2_000_000).strip();

    assertEquals(plain, read("a: \"" + plain + "\"").orElseThrow().json().get("a").asText());
    assertEquals(plain, read("a: '" + plain + "'").orElseThrow().json().get("a").asText());
    assertEquals(plain, read("a: " + plain).orElseThrow().json().get("a").asText());
    assertEquals(List.of(), problems);
  }

  private Optional<Node> read(String text) {
    return Trees.read(
        text, (line, column, path, message) -> problems.add(line + ":" + column + ": " + message));
  }
}
