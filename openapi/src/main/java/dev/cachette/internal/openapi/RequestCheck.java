// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Cookies;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Checks requests against an API description. */
final class RequestCheck {

  private final Schemas schemas;
  private final Operation operation;
  private final Request request;
  private final List<Check> missed = new ArrayList<>();

  private RequestCheck(Schemas schemas, Operation operation, Request request) {
    this.schemas = schemas;
    this.operation = operation;
    this.request = request;
  }

  /**
   * Returns the violations.
   *
   * @param variables the path variables
   */
  static List<Check> of(
      Schemas schemas, Operation operation, Map<String, String> variables, Request request) {
    RequestCheck check = new RequestCheck(schemas, operation, request);
    check.operation.credentials().missing(request, operation.at()).ifPresent(check.missed::add);
    check.parameters(variables);
    check.missed.addAll(unknownParameters(operation, request.uri().query().names()));
    check.body();
    return List.copyOf(check.missed);
  }

  private void parameters(Map<String, String> variables) {
    Query query = request.uri().query();
    for (Parameter parameter : operation.parameters()) {
      Optional<JsonNode> value =
          switch (parameter.in()) {
            case "path" ->
                Optional.ofNullable(variables.get(parameter.name()))
                    .map(text -> ParameterText.of(parameter, text));
            case "query" -> ParameterText.in(query, parameter);
            case "querystring" -> parameter.ofWhole(request.uri().rawQuery());
            case "header" -> parameter.in(request.headers());
            default ->
                Cookies.in(request).all(parameter.name()).stream()
                    .findFirst()
                    .map(text -> ParameterText.of(parameter, text));
          };
      parameter.check(value, schemas, Direction.REQUEST).ifPresent(missed::add);
    }
  }

  /** Reports unknown parameters, which are usually misspelled. */
  static List<Check> unknownParameters(Operation operation, Set<String> names) {
    List<Parameter> known = operation.parametersIn("query");
    List<String> all = known.stream().map(Parameter::name).toList();
    String expected = all.isEmpty() ? "no parameter" : "one of " + String.join(", ", all);
    List<Check> missed = new ArrayList<>();
    if (!operation.parametersIn("querystring").isEmpty()) {
      return missed;
    }
    for (String name : names) {
      boolean taken =
          operation.credentials().parameters().contains(name)
              || known.stream().anyMatch(it -> ParameterText.takes(it, name));
      if (!taken) {
        Difference difference =
            Difference.of(operation.at().asks(expected), name)
                .because(
                    NameSuggester.closest(name, all).map(near -> "did you mean \"" + near + "\"?"));
        missed.add(Check.missed("query " + name, 0, difference));
      }
    }
    return missed;
  }

  private void body() {
    Element body = operation.body();
    Content content = Content.of(request.headers(), request.body());
    if (content.isEmpty()) {
      if (body.isSet("required")) {
        missed.add(
            Check.missed(
                "body",
                0,
                Difference.of(body.asks("a body, because it is required"), Difference.MISSING)));
      }
      return;
    }
    if (body.isThere()) {
      new BodyCheck(schemas, Direction.REQUEST).of(content, body).ifPresent(missed::add);
    } else {
      missed.add(
          Check.missed(
              "body", 0, Difference.of(operation.at().asks("no body"), request.body() + "")));
    }
  }
}
