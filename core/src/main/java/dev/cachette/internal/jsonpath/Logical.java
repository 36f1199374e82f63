// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Optional;

/** A logical expression in a filter (RFC 9535 section 2.3.5). */
sealed interface Logical {

  boolean holds(JsonNode current, JsonNode root);

  /** All hold. */
  record And(List<Logical> operands) implements Logical {
    @Override
    public boolean holds(JsonNode current, JsonNode root) {
      return operands.stream().allMatch(operand -> operand.holds(current, root));
    }
  }

  /** One holds. */
  record Or(List<Logical> operands) implements Logical {
    @Override
    public boolean holds(JsonNode current, JsonNode root) {
      return operands.stream().anyMatch(operand -> operand.holds(current, root));
    }
  }

  /** It does not hold. */
  record Not(Logical operand) implements Logical {
    @Override
    public boolean holds(JsonNode current, JsonNode root) {
      return !operand.holds(current, root);
    }
  }

  /** The query selects something. */
  record Exists(Term.Query query) implements Logical {
    @Override
    public boolean holds(JsonNode current, JsonNode root) {
      return !query.nodes(current, root).isEmpty();
    }
  }

  /** {@code match} or {@code search}: a string matches a regular expression (RFC 9485). */
  record Fits(Term text, Term pattern, boolean whole) implements Logical {
    @Override
    public boolean holds(JsonNode current, JsonNode root) {
      Optional<JsonNode> actual = text.value(current, root).filter(JsonNode::isTextual);
      Optional<JsonNode> regex = pattern.value(current, root).filter(JsonNode::isTextual);
      return actual.isPresent()
          && regex.isPresent()
          && Regexes.fits(actual.get().textValue(), regex.get().textValue(), whole);
    }
  }

  /** A comparison of two values. */
  record Comparison(Term left, String operator, Term right) implements Logical {
    @Override
    public boolean holds(JsonNode current, JsonNode root) {
      Optional<JsonNode> one = left.value(current, root);
      Optional<JsonNode> other = right.value(current, root);
      return switch (operator) {
        case "==" -> Comparisons.equal(one, other);
        case "!=" -> !Comparisons.equal(one, other);
        case "<" -> Comparisons.less(one, other);
        case ">" -> Comparisons.less(other, one);
        case "<=" -> Comparisons.less(one, other) || Comparisons.equal(one, other);
        case ">=" -> Comparisons.less(other, one) || Comparisons.equal(one, other);
        default -> throw new IllegalStateException("unknown operator: " + operator);
      };
    }
  }
}
