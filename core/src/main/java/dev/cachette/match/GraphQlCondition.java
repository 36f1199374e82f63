// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.graphql.GraphQlOperation;
import dev.cachette.internal.graphql.GraphQlRequests;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Matches a GraphQL over HTTP request, by POST or GET, with an operation that meets the
 * requirements added here. For a batch (an array of operations), one matching operation is enough.
 * The name of an operation is the one in its document, whether or not the client sent {@code
 * operationName}.
 *
 * <p>Immutable and safe to share between threads.
 */
public final class GraphQlCondition extends BuiltInCondition {

  private final Aspects<GraphQlOperation> aspects;

  GraphQlCondition() {
    this(Aspects.none());
    GraphQlRequests.requireParser();
  }

  private GraphQlCondition(Aspects<GraphQlOperation> aspects) {
    this.aspects = aspects;
  }

  /** Requires this operation name. */
  public GraphQlCondition operation(String name) {
    return operation(Values.is(name));
  }

  /** Requires an operation name that meets a condition. */
  public GraphQlCondition operation(ValueCondition name) {
    return texts(
        "operation",
        Arguments.given("operation(name)", name),
        StubNodes.member("operation", name.written()),
        each -> each.name().stream().toList());
  }

  /** Requires a query. */
  public GraphQlCondition query() {
    return kind("query");
  }

  /** Requires a mutation. */
  public GraphQlCondition mutation() {
    return kind("mutation");
  }

  /** Requires a subscription. */
  public GraphQlCondition subscription() {
    return kind("subscription");
  }

  /**
   * Requires a variable of the operation, or a value in one.
   *
   * @param name its name, or a JSONPath or JSON Pointer into the variables: {@code $.vessel.name}
   */
  public GraphQlCondition variable(String name, ValueCondition value) {
    Arguments.named("variable(name, value)", name);
    Arguments.given("variable(name, value)", value);
    boolean path = name.startsWith("$") || name.startsWith("/");
    JsonQuery query =
        JsonQuery.parse(path ? name : "/" + name.replace("~", "~0").replace("/", "~1"));
    String words = "variable " + name;
    return with(
        words + " " + value,
        StubNodes.member("variables", name, value.written()),
        each -> JsonValue.check(words, query, value, each.variables()));
  }

  /**
   * Requires a variable of the operation, or a value in one, to be this one.
   *
   * @param name its name, or a JSONPath or JSON Pointer into the variables: {@code $.vessel.name}
   * @param value a plain value, see {@link Values#is(Object)}; null means JSON null
   */
  public GraphQlCondition variable(String name, @Nullable Object value) {
    return variable(name, PlainValue.condition("variable(name, value)", value));
  }

  /** Requires a top-level field of the operation, by its name, not its alias. */
  public GraphQlCondition field(String name) {
    return texts(
        "field",
        Values.is(name),
        Optional.of(StubNodes.member("fields", StubNodes.texts(List.of(name)))),
        GraphQlOperation::fields);
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("graphql", aspects.written());
  }

  @Override
  public String description() {
    return "graphql: " + expected();
  }

  @Override
  public Check check(Received received) {
    List<GraphQlOperation> operations;
    try {
      operations = operations(received);
    } catch (IllegalArgumentException none) {
      return Check.missed(
          "graphql", 0, Difference.of(expected(), "not a GraphQL request: " + none.getMessage()));
    }
    List<Check> checks = new ArrayList<>();
    for (GraphQlOperation operation : operations) {
      String place =
          operations.size() == 1
              ? ""
              : String.format("operation %d of %d, ", checks.size() + 1, operations.size());
      checks.add(check(operation, place));
    }
    return checks.stream()
        .max(Comparator.comparingDouble(Check::nearness))
        .orElseGet(() -> Check.missed("graphql", 0, Difference.of(expected(), "an empty array")));
  }

  private static List<GraphQlOperation> operations(Received received) {
    if (received.request().method().equals("GET")) {
      return GraphQlRequests.inQuery(received.query());
    }
    Reading<JsonNode> reading = received.content().jsonReading();
    return GraphQlRequests.inBody(
        reading.value().orElseThrow(() -> Refusals.argument(reading.problem())));
  }

  private Check check(GraphQlOperation operation, String place) {
    List<Difference> differences =
        aspects.differences(operation).stream().map(it -> it.at(place + it.at())).toList();
    double share = 1 - (double) differences.size() / Math.max(1, aspects.count());
    return differences.isEmpty()
        ? Check.held("graphql", expected())
        : Check.missed("graphql", 0.3 + 0.5 * Math.max(0, share), expected(), differences);
  }

  private GraphQlCondition kind(String kind) {
    return texts(
        "kind",
        Values.is(kind),
        Optional.of(StubNodes.member("kind", StubNodes.text(kind))),
        each -> List.of(each.kind()));
  }

  private GraphQlCondition texts(
      String name,
      ValueCondition value,
      Optional<JsonNode> written,
      Function<GraphQlOperation, List<String>> values) {
    return with(
        name + " " + value, written, each -> value.check(name, Found.texts(values.apply(each))));
  }

  private GraphQlCondition with(
      String words, Optional<JsonNode> written, Function<GraphQlOperation, Check> check) {
    return new GraphQlCondition(aspects.and(words, written, check));
  }

  private String expected() {
    return aspects.words("a GraphQL operation");
  }

  @Override
  public String toString() {
    return description();
  }
}
