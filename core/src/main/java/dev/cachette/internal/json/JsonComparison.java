// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.finding.TextFinding;
import dev.cachette.internal.jsonpath.Comparisons;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.limit.TimeLimit;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Compares JSON values, and reports differences with path and type.
 *
 * @param expected the expected value
 * @param exact whether additional members are differences
 * @param anyOrder whether elements of arrays may come in any order
 * @param ignored places that are not compared, in either value
 */
public record JsonComparison(
    JsonNode expected, boolean exact, boolean anyOrder, List<JsonQuery> ignored) {

  private static final int LONGEST = 120;

  /** The cause of differences between arrays with the same elements. */
  public static final String OTHER_ORDER = "the same elements in another order";

  /** Creates a comparison for the same value. */
  public static JsonComparison same(JsonNode expected) {
    return new JsonComparison(expected, true, false, List.of());
  }

  /** Creates a comparison for a value with these members, and possibly others. */
  public static JsonComparison containing(JsonNode expected) {
    return new JsonComparison(expected, false, false, List.of());
  }

  /** Returns the differences; empty if the value is as expected. */
  public List<Difference> differences(JsonNode actual) {
    Set<String> skipped = new HashSet<>();
    for (JsonQuery query : ignored) {
      pathsOf(query, expected, skipped);
      pathsOf(query, actual, skipped);
    }
    List<Difference> found = new ArrayList<>();
    compare(Located.root(expected), Located.root(actual), skipped, found);
    return found;
  }

  private static void pathsOf(JsonQuery query, JsonNode root, Set<String> into) {
    for (Located located : query.find(root)) {
      into.add(located.path());
    }
  }

  private void compare(Located want, Located have, Set<String> skipped, List<Difference> into) {
    TimeLimit.check();
    if (skipped.contains(have.path())) {
      return;
    }
    if (want.node().isObject() && have.node().isObject()) {
      compareMembers(want, have, skipped, into);
    } else if (want.node().isArray() && have.node().isArray()) {
      compareElements(want, have, skipped, into);
    } else if (!Comparisons.equal(want.node(), have.node())) {
      into.add(difference(want, have));
    }
  }

  private void compareMembers(
      Located want, Located have, Set<String> skipped, List<Difference> into) {
    for (String name : names(want.node())) {
      Located actual = have.member(name);
      if (!actual.node().isMissingNode()) {
        compare(want.member(name), actual, skipped, into);
      } else if (!skipped.contains(actual.path())) {
        into.add(missing(name, want.member(name), actual.path(), have.node()));
      }
    }
    for (String name : exact ? names(have.node()) : List.<String>of()) {
      Located member = have.member(name);
      if (!want.node().has(name) && !skipped.contains(member.path())) {
        into.add(new Difference(member.path(), "no such member", shown(member), Optional.empty()));
      }
    }
  }

  private void compareElements(
      Located want, Located have, Set<String> skipped, List<Difference> into) {
    if (anyOrder) {
      compareAnyOrder(want, have, skipped, into);
      return;
    }
    if (want.node().size() != have.node().size()) {
      into.add(otherLength(want, have));
    }
    List<Difference> elements = new ArrayList<>();
    int both = Math.min(want.node().size(), have.node().size());
    for (int at = 0; at < both; at++) {
      compare(want.element(at), have.element(at), skipped, elements);
    }
    boolean sameSize = want.node().size() == have.node().size();
    if (!elements.isEmpty() && sameSize && differOnlyInOrder(want, have, skipped)) {
      into.add(elements.get(0).because(Optional.of(OTHER_ORDER)));
    } else {
      into.addAll(elements);
    }
  }

  private boolean differOnlyInOrder(Located want, Located have, Set<String> skipped) {
    List<Difference> found = new ArrayList<>();
    new JsonComparison(expected, exact, true, ignored).compareAnyOrder(want, have, skipped, found);
    return found.isEmpty();
  }

  private void compareAnyOrder(
      Located want, Located have, Set<String> skipped, List<Difference> into) {
    List<Located> left = new ArrayList<>();
    for (int at = 0; at < have.node().size(); at++) {
      left.add(have.element(at));
    }
    for (int at = 0; at < want.node().size(); at++) {
      Located wanted = want.element(at);
      Optional<Located> partner =
          left.stream().filter(candidate -> fits(wanted, candidate, skipped)).findFirst();
      partner.ifPresentOrElse(
          left::remove,
          () ->
              into.add(
                  new Difference(
                      have.path(),
                      "an element " + shown(wanted),
                      "none like it",
                      Optional.empty())));
    }
    if (exact && have.node().size() > want.node().size()) {
      into.add(otherLength(want, have));
    }
  }

  private static Difference otherLength(Located want, Located have) {
    return new Difference(
        have.path(),
        "an array of " + want.node().size(),
        "an array of " + have.node().size(),
        Optional.empty());
  }

  private boolean fits(Located want, Located have, Set<String> skipped) {
    List<Difference> found = new ArrayList<>();
    compare(want, have, skipped, found);
    return found.isEmpty();
  }

  private static Difference missing(String name, Located wanted, String path, JsonNode parent) {
    return new Difference(path, shown(wanted), Difference.MISSING, Optional.empty())
        .because(NameSuggester.hint("a member", name, names(parent)));
  }

  private static List<String> names(JsonNode object) {
    List<String> names = new ArrayList<>();
    object.fieldNames().forEachRemaining(names::add);
    return names;
  }

  private static Difference difference(Located want, Located have) {
    JsonNode wanted = want.node();
    JsonNode actual = have.node();
    boolean otherType = wanted.getNodeType() != actual.getNodeType();
    String remark = otherType ? "  (" + type(actual) + ", not " + type(wanted) + ")" : "";
    boolean texts = wanted.isTextual() && actual.isTextual();
    if (!texts) {
      return new Difference(
          have.path(), shown(want), shown(have) + remark, kind(wanted, actual), Optional.empty());
    }
    return TextFinding.of(
        have.path(),
        wanted.textValue(),
        actual.textValue(),
        text -> Masking.value(have.name(), text));
  }

  private static Difference.Kind kind(JsonNode wanted, JsonNode actual) {
    if (wanted.isNumber() && actual.isTextual()) {
      return Difference.Kind.STRING_FOR_NUMBER;
    }
    if (wanted.isTextual() && actual.isNumber()) {
      return Difference.Kind.NUMBER_FOR_STRING;
    }
    return wanted.getNodeType() == actual.getNodeType()
        ? Difference.Kind.VALUE
        : Difference.Kind.TYPE;
  }

  /** Returns the type of a node in words. */
  public static String type(JsonNode node) {
    return switch (node.getNodeType()) {
      case ARRAY -> "an array";
      case BOOLEAN -> "a boolean";
      case NULL -> "null";
      case NUMBER -> "a number";
      case OBJECT, POJO -> "an object";
      case STRING, BINARY -> "a string";
      case MISSING -> "missing";
    };
  }

  private static String shown(Located located) {
    String name = located.name();
    JsonNode node = located.node();
    String masked =
        node.isValueNode()
            ? Masking.value(name, node.asText()).equals(node.asText())
                ? node.toString()
                : '"' + Masking.MASK + '"'
            : Masking.body(Optional.of("application/json"), node.toString());
    String text = Quoting.visible(masked);
    return text.length() <= LONGEST ? text : text.substring(0, LONGEST) + "...";
  }
}
