// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.graphql;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import dev.cachette.http.Query;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.misuse.Refusals;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The operations of a GraphQL over HTTP request: by POST, by GET, or as a batch. */
public final class GraphQlRequests {

  private static final String PARSER = "graphql.parser.Parser";
  private static final JsonNode NO_VARIABLES = JsonNodeFactory.instance.objectNode();

  private GraphQlRequests() {}

  /**
   * Checks that the parser is on the classpath.
   *
   * @throws IllegalStateException if it is not; the message names the dependency
   */
  public static void requireParser() {
    try {
      Class.forName(PARSER, false, GraphQlRequests.class.getClassLoader());
    } catch (ClassNotFoundException absent) {
      throw new IllegalStateException(
          "Conditions on GraphQL need graphql-java, which is not on the classpath.\n"
              + "Fix: add com.graphql-java:graphql-java as a test dependency.",
          absent);
    }
  }

  /**
   * Returns the operations in a JSON body.
   *
   * @throws IllegalArgumentException if there is none; the message says why
   */
  public static List<GraphQlOperation> inBody(JsonNode body) {
    if (!body.isArray()) {
      return List.of(inObject(body));
    }
    List<GraphQlOperation> operations = new ArrayList<>();
    body.forEach(each -> operations.add(inObject(each)));
    return operations;
  }

  /**
   * Returns the operation in a query string.
   *
   * @throws IllegalArgumentException if there is none; the message says why
   */
  public static List<GraphQlOperation> inQuery(Query query) {
    String document =
        query.first("query").orElseThrow(() -> Refusals.argument("it has no parameter \"query\""));
    JsonNode variables = query.first("variables").map(Json::tree).orElse(NO_VARIABLES);
    return List.of(GraphQlDocuments.operation(document, query.first("operationName"), variables));
  }

  private static GraphQlOperation inObject(JsonNode body) {
    if (!body.path("query").isTextual()) {
      throw Refusals.argument("its JSON has no string \"query\"");
    }
    Optional<String> name =
        Optional.of(body.path("operationName"))
            .filter(JsonNode::isTextual)
            .map(JsonNode::textValue);
    JsonNode variables = body.path("variables");
    return GraphQlDocuments.operation(
        body.path("query").textValue(), name, variables.isObject() ? variables : NO_VARIABLES);
  }
}
