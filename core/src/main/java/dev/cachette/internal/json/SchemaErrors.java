// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import dev.harrel.jsonschema.Error;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Selects the significant errors of a validator: the keywords that are violated, not those that
 * contain them; and among alternatives, the errors of the closest one.
 */
final class SchemaErrors {

  /** The pseudo-keyword of a schema that is {@code false}. */
  static final String FORBIDDEN = "false";

  private static final Set<String> ALTERNATIVES = Set.of("anyOf", "oneOf");

  private SchemaErrors() {}

  /**
   * Returns the significant errors.
   *
   * @param keyword returns the value of the keyword of an error
   */
  static List<Error> telling(List<Error> errors, Function<Error, JsonNode> keyword) {
    List<Error> left = new ArrayList<>(errors);
    for (Error error : errors) {
      if (ALTERNATIVES.contains(keywordOf(error))) {
        choose(error, left, keyword.apply(error).size());
      }
    }
    return left.stream()
        .filter(error -> left.stream().noneMatch(other -> isWithin(other, error)))
        .toList();
  }

  /** Returns the violated keyword; {@link #FORBIDDEN} if there is none. */
  static String keywordOf(Error error) {
    return Objects.requireNonNullElse(error.getKeyword(), FORBIDDEN);
  }

  /** Returns true if the schema allows nothing, as for members that must not occur. */
  static boolean isForbidden(Error error) {
    return keywordOf(error).equals(FORBIDDEN);
  }

  /** Keeps the errors of the closest alternative only; none if more than one is valid. */
  private static void choose(Error error, List<Error> left, int alternatives) {
    String start = error.getEvaluationPath() + "/";
    Map<String, List<Error>> branches =
        left.stream()
            .filter(each -> isWithin(each, error))
            .collect(
                Collectors.groupingBy(
                    each ->
                        each.getEvaluationPath().substring(start.length()).replaceAll("/.*", ""),
                    TreeMap::new,
                    Collectors.toList()));
    boolean severalHold = branches.size() < alternatives;
    List<Error> closest =
        severalHold
            ? List.of()
            : branches.values().stream()
                .min(Comparator.comparingInt(SchemaErrors::distance))
                .orElse(List.of());
    left.removeIf(each -> isWithin(each, error) && !closest.contains(each));
  }

  /** Ranks alternatives: a value of another type is farther away than one with wrong parts. */
  private static int distance(List<Error> branch) {
    int shortest =
        branch.stream().mapToInt(error -> error.getInstanceLocation().length()).min().orElse(0);
    boolean otherType =
        branch.stream()
            .anyMatch(
                error ->
                    keywordOf(error).equals("type")
                        && error.getInstanceLocation().length() == shortest);
    return branch.size() + (otherType ? 1_000 : 0);
  }

  /**
   * Returns true if an error was found inside the keyword of another one, or by the keyword that
   * depends on it, as {@code then} on {@code if}.
   */
  private static boolean isWithin(Error inner, Error outer) {
    String keyword = outer.getEvaluationPath();
    String schema = keyword.substring(0, keyword.lastIndexOf('/') + 1);
    String path = inner.getEvaluationPath();
    return inner != outer
        && (path.startsWith(keyword + "/")
            || keywordOf(outer).equals("if")
                && (path.startsWith(schema + "then/") || path.startsWith(schema + "else/")));
  }
}
