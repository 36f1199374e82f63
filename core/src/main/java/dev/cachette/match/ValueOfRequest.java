// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/**
 * A condition on a named value of a request.
 *
 * @param kind the kind of value: {@code header}, {@code query}
 * @param name its name
 * @param values finds the values in a request
 * @param mask masks what is secret in a value before it is shown
 * @param absence why a request has no such value, if that is known
 * @param condition what the value must be
 */
record ValueOfRequest(
    String kind,
    String name,
    Function<Received, List<String>> values,
    UnaryOperator<String> mask,
    Function<Received, Optional<Cause>> absence,
    ValueCondition condition)
    implements Condition, StubForm {

  @Override
  public Optional<JsonNode> written() {
    return switch (kind) {
      case "header" -> StubNodes.member("headers", name, condition.written());
      case "cookie" -> StubNodes.member("cookies", name, condition.written());
      case "bearer" -> StubNodes.member("bearer", condition.written());
      default -> StubNodes.member(kind, name, condition.written());
    };
  }

  @Override
  public String description() {
    return kind + " " + name + ": " + condition.describe(mask);
  }

  @Override
  public boolean holds(Received received) {
    return condition.holds(found(received));
  }

  private Found found(Received received) {
    return Found.texts(values.apply(received), mask);
  }

  /** Overridden to show the value that must not occur. */
  @Override
  public Condition negated() {
    return new ValueOfRequest(kind, name, values, mask, absence, ManyCondition.not(condition));
  }

  @Override
  public Check check(Received received) {
    Check check = condition.check(kind + " " + name, found(received));
    boolean absent = !check.holds() && check.differences().get(0).isMissing();
    if (!absent) {
      return check;
    }
    Optional<Cause> cause = absence.apply(received);
    return Check.missed(
        check.condition(),
        cause.isPresent() ? 0.3 : 0,
        check.expected(),
        List.of(check.differences().get(0).with(cause)));
  }
}
