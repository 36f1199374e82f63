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
 * Of all that a validator finds wrong, what tells: the keywords that do not hold, not those around
 * them; and of several alternatives the one that comes nearest.
 */
final class SchemaErrors {

  /** In the place of a keyword, where a schema is just {@code false}. */
  static final String FORBIDDEN = "false";

  private static final Set<String> ALTERNATIVES = Set.of("anyOf", "oneOf");

  private SchemaErrors() {}

  /**
   * Those that tell.
   *
   * @param keyword what the schema says for the keyword of an error
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

  /** The keyword that does not hold; {@link #FORBIDDEN} where there is none. */
  static String keywordOf(Error error) {
    return Objects.requireNonNullElse(error.getKeyword(), FORBIDDEN);
  }

  /** Whether the schema allows nothing, as that of members that must not be there. */
  static boolean isForbidden(Error error) {
    return keywordOf(error).equals(FORBIDDEN);
  }

  /** Leaves of the alternatives only the nearest; none where more than one holds. */
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
    List<Error> nearest =
        severalHold
            ? List.of()
            : branches.values().stream()
                .min(Comparator.comparingInt(SchemaErrors::distance))
                .orElse(List.of());
    left.removeIf(each -> isWithin(each, error) && !nearest.contains(each));
  }

  /** A value of another type is farther from a schema than one of which some parts are wrong. */
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
   * Whether an error was found while the keyword of another one was looked at; or the keyword that
   * follows of it, which {@code then} does of {@code if}.
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
