// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Checks responses against an API description. */
final class ResponseCheck {

  /** Statuses that HTTP itself defines for any operation: RFC 9110 sections 13 and 14. */
  private static final Set<Integer> OF_HTTP = Set.of(206, 304, 412, 416);

  /** Statuses that any service may return when it is slow or overloaded. */
  private static final Set<Integer> OVERLOADED = Set.of(408, 429);

  private static final int SERVER_ERROR = 500;
  private static final int NO_CONTENT = 204;

  private ResponseCheck() {}

  /**
   * Returns the violations.
   *
   * @param withBody whether there is a body that can be checked
   */
  static List<Check> of(Schemas schemas, Operation operation, Response response, boolean withBody) {
    int status = response.status();
    if (isAlwaysPossible(status) && operation.responseNamed(status).isEmpty()) {
      return List.of();
    }
    Optional<Element> described = operation.response(status);
    if (described.isEmpty()) {
      return List.of(
          Check.missed(
              "status",
              0,
              Difference.of(
                  operation.responses().asks(operation.statuses()), Integer.toString(status))));
    }
    List<Check> missed = new ArrayList<>(headers(schemas, described.get(), response));
    Content content = Content.of(response.headers(), response.body());
    boolean wanted = !described.get().get("content").json().isEmpty();
    if (withBody && !(content.isEmpty() && !wanted) && status != NO_CONTENT) {
      new BodyCheck(schemas, Direction.RESPONSE)
          .of(content, described.get())
          .ifPresent(missed::add);
    }
    return List.copyOf(missed);
  }

  private static boolean isAlwaysPossible(int status) {
    return OF_HTTP.contains(status) || OVERLOADED.contains(status) || status >= SERVER_ERROR;
  }

  private static List<Check> headers(Schemas schemas, Element described, Response response) {
    List<Check> missed = new ArrayList<>();
    described
        .get("headers")
        .members()
        .forEach(
            (name, header) -> {
              if (!name.equalsIgnoreCase("content-type")) {
                Parameter parameter = Parameter.header(name, header);
                parameter
                    .check(parameter.in(response.headers()), schemas, Direction.RESPONSE)
                    .ifPresent(missed::add);
              }
            });
    return missed;
  }
}
