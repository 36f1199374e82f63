// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.jsonpath;

import com.fasterxml.jackson.databind.node.BooleanNode;
import com.fasterxml.jackson.databind.node.NullNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.util.ArrayList;
import java.util.List;

/** Parses the logical expression of a filter, and checks its types. */
final class FilterParser {

  private static final List<String> OPERATORS = List.of("==", "!=", "<=", ">=", "<", ">");
  private static final String FUNCTIONS = "length, count, value, match or search";

  private final Scanner in;

  FilterParser(Scanner in) {
    this.in = in;
  }

  Logical or() {
    List<Logical> operands = new ArrayList<>();
    do {
      in.skipBlanks();
      operands.add(and());
      in.skipBlanks();
    } while (in.take("||"));
    return operands.size() == 1 ? operands.get(0) : new Logical.Or(operands);
  }

  private Logical and() {
    List<Logical> operands = new ArrayList<>();
    do {
      in.skipBlanks();
      operands.add(basic());
      in.skipBlanks();
    } while (in.take("&&"));
    return operands.size() == 1 ? operands.get(0) : new Logical.And(operands);
  }

  private Logical basic() {
    int start = in.position();
    boolean negated = in.take("!");
    in.skipBlanks();
    Logical condition;
    if (in.take("(")) {
      condition = or();
      in.skipBlanks();
      in.expect(")");
    } else {
      condition = testOrComparison();
      if (negated && condition instanceof Logical.Comparison) {
        in.moveTo(start);
        throw in.error("a comparison is negated with parentheses", "write !(@.a == 1).");
      }
    }
    return negated ? new Logical.Not(condition) : condition;
  }

  private Logical testOrComparison() {
    int start = in.position();
    String function = in.functionName();
    if (function.equals("match") || function.equals("search")) {
      return fits(function.equals("match"));
    }
    Term left = term(function);
    int end = in.position();
    in.skipBlanks();
    for (String operator : OPERATORS) {
      if (in.take(operator)) {
        requireComparable(left, start);
        in.skipBlanks();
        int rightStart = in.position();
        Term right = term(in.functionName());
        requireComparable(right, rightStart);
        return new Logical.Comparison(left, operator, right);
      }
    }
    in.moveTo(end);
    if (left instanceof Term.Query query && function.isEmpty()) {
      return new Logical.Exists(query);
    }
    in.moveTo(start);
    throw in.error("a value alone is not a condition", "compare it: @.berths > 2.");
  }

  private Term term(String function) {
    return switch (function) {
      case "length" -> new Term.Length(valueArgument());
      case "count" -> new Term.Count(queryArgument());
      case "value" -> new Term.SingleValue(queryArgument());
      case "" -> literalOrQuery();
      case "match", "search" ->
          throw in.error(
              "this function gives no value to compare", "use it as a condition itself.");
      default -> throw in.error("unknown function \"" + function + "\"", "use " + FUNCTIONS + ".");
    };
  }

  private Logical fits(boolean whole) {
    in.skipBlanks();
    Term text = comparableArgument();
    in.skipBlanks();
    in.expect(",");
    in.skipBlanks();
    Term pattern = comparableArgument();
    in.skipBlanks();
    in.expect(")");
    return new Logical.Fits(text, pattern, whole);
  }

  private Term valueArgument() {
    in.skipBlanks();
    Term argument = comparableArgument();
    in.skipBlanks();
    in.expect(")");
    return argument;
  }

  private Term comparableArgument() {
    int start = in.position();
    Term argument = term(in.functionName());
    requireComparable(argument, start);
    return argument;
  }

  private Term.Query queryArgument() {
    in.skipBlanks();
    int start = in.position();
    Term argument = literalOrQuery();
    in.skipBlanks();
    in.expect(")");
    if (argument instanceof Term.Query query) {
      return query;
    }
    in.moveTo(start);
    throw in.error("this function needs a query", "begin it with @ or $.");
  }

  private Term literalOrQuery() {
    char next = in.peek();
    if (next == '@' || next == '$') {
      in.moveTo(in.position() + 1);
      return new Term.Query(next == '$', JsonPathParser.segments(in));
    }
    if (next == '\'' || next == '"') {
      return new Term.Literal(TextNode.valueOf(in.quoted()));
    }
    if (in.takeWord("true")) {
      return new Term.Literal(BooleanNode.TRUE);
    }
    if (in.takeWord("false")) {
      return new Term.Literal(BooleanNode.FALSE);
    }
    if (in.takeWord("null")) {
      return new Term.Literal(NullNode.getInstance());
    }
    return new Term.Literal(
        in.number()
            .orElseThrow(
                () ->
                    in.error(
                        "expected a query, a string in quotes, a number, true, false or null",
                        "write @.name for a member of the element.")));
  }

  /** Checks that a query in a comparison selects one node at most (section 2.4.3). */
  private void requireComparable(Term term, int start) {
    if (term instanceof Term.Query query && !query.isSingular()) {
      in.moveTo(start);
      throw in.error(
          "a query that can select several nodes has no value to compare",
          "name one member or element, or use count(...) or value(...).");
    }
  }
}
