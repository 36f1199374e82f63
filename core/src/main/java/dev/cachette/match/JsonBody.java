// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Matches a body that is the same JSON as the expected one, or that contains its members. Members
 * may come in any order, and numbers are compared by value.
 */
public final class JsonBody extends BodyCondition {

  private static final int LONGEST = 80;

  private final JsonComparison comparison;

  JsonBody(JsonComparison comparison) {
    this.comparison = comparison;
  }

  /**
   * Ignores these places in both JSON values.
   *
   * @param paths each a JSONPath (RFC 9535) or a JSON Pointer (RFC 6901): {@code $.id}, {@code
   *     $..timestamp}, {@code /meta/trace}
   * @throws IllegalArgumentException if a path is malformed; the message marks the place
   */
  public JsonBody ignoring(String... paths) {
    List<JsonQuery> ignored = new ArrayList<>(comparison.ignored());
    Arrays.stream(Arguments.given("ignoring(paths)", paths))
        .map(JsonQuery::parse)
        .forEach(ignored::add);
    return new JsonBody(
        new JsonComparison(
            comparison.expected(), comparison.exact(), comparison.anyOrder(), ignored));
  }

  /**
   * Accepts the elements of arrays in any order. If members may be additional, elements may be,
   * too.
   */
  public JsonBody anyOrder() {
    return new JsonBody(
        new JsonComparison(comparison.expected(), comparison.exact(), true, comparison.ignored()));
  }

  @Override
  Optional<JsonNode> written() {
    ObjectNode form =
        StubNodes.member(comparison.exact() ? "sameJson" : "containsJson", comparison.expected());
    if (!comparison.ignored().isEmpty()) {
      form.set(
          "ignoring",
          StubNodes.texts(comparison.ignored().stream().map(JsonQuery::toString).toList()));
    }
    if (comparison.anyOrder()) {
      form.put("anyOrder", true);
    }
    return Optional.of(StubNodes.member("body", form));
  }

  @Override
  boolean isQuick() {
    return !comparison.anyOrder() && comparison.ignored().isEmpty();
  }

  @Override
  String name() {
    return "body";
  }

  @Override
  String expected() {
    String text = Masking.body(Optional.of("application/json"), comparison.expected().toString());
    String cut = text.length() > LONGEST ? text.substring(0, LONGEST) + "..." : text;
    return (comparison.exact() ? "the JSON " : "JSON that contains ")
        + cut
        + (comparison.anyOrder() ? ", in any order" : "")
        + (comparison.ignored().isEmpty() ? "" : ", ignoring " + comparison.ignored());
  }

  @Override
  Check check(Content content) {
    Reading<JsonNode> reading = content.jsonReading();
    if (reading.value().isEmpty()) {
      return unreadable(reading.problem());
    }
    List<Difference> differences =
        comparison.differences(reading.value().get()).stream().map(JsonBody::advised).toList();
    return differences.isEmpty()
        ? Check.held(name(), expected())
        : Check.missed(
            name(),
            nearness(differences.size()),
            expected(),
            encodedTwice(reading.value().get(), differences));
  }

  private static Difference advised(Difference difference) {
    boolean otherOrder =
        difference.cause().filter(it -> it.text().equals(JsonComparison.OTHER_ORDER)).isPresent();
    return otherOrder
        ? difference.because(
            Optional.of(JsonComparison.OTHER_ORDER + "; .anyOrder() accepts any order"))
        : difference;
  }

  private double nearness(int differences) {
    int leaves = Math.max(1, leaves(comparison.expected()));
    return 0.2 + 0.7 * Math.max(0, 1 - (double) differences / leaves);
  }

  /** Detects a JSON string that contains JSON itself, which was encoded once too often. */
  private static List<Difference> encodedTwice(JsonNode actual, List<Difference> differences) {
    boolean twice =
        actual.isTextual() && differences.size() == 1 && Json.isValid(actual.textValue());
    return twice
        ? List.of(
            differences.get(0).because(Optional.of("a string that contains JSON: encoded twice")))
        : differences;
  }

  private static int leaves(JsonNode node) {
    int leaves = node.isContainerNode() ? 0 : 1;
    for (JsonNode child : node) {
      leaves += leaves(child);
    }
    return leaves;
  }
}
