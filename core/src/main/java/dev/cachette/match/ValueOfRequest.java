package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Written;
import dev.cachette.internal.text.Likeness;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/**
 * A condition on a value that a request has under a name.
 *
 * @param kind what it is: {@code header}, {@code query}
 * @param name its name
 * @param values finds it in a request
 * @param mask takes what is secret out of a value before it is shown
 * @param names the names that a request has of this kind, to point out one that is nearly the same
 * @param condition what it must be
 */
record ValueOfRequest(
    String kind,
    String name,
    Function<Received, List<String>> values,
    UnaryOperator<String> mask,
    Function<Received, Collection<String>> names,
    ValueCondition condition)
    implements Condition {

  @Override
  public Optional<JsonNode> written() {
    return switch (kind) {
      case "header" -> Written.member("headers", name, condition.written());
      case "cookie" -> Written.member("cookies", name, condition.written());
      case "bearer" -> Written.member("bearer", condition.written());
      default -> Written.member(kind, name, condition.written());
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

  /** So that the value that it must not have is shown. */
  @Override
  public Condition negated() {
    return new ValueOfRequest(kind, name, values, mask, names, ManyCondition.not(condition));
  }

  @Override
  public Check check(Received received) {
    Check check = condition.check(kind + " " + name, found(received));
    boolean absent = !check.holds() && check.differences().get(0).isMissing();
    if (!absent) {
      return check;
    }
    Optional<String> near = Likeness.hint("a " + kind, name, names.apply(received));
    return Check.missed(
        check.condition(),
        near.isPresent() ? 0.3 : 0,
        check.expected(),
        List.of(check.differences().get(0).because(near)));
  }
}
