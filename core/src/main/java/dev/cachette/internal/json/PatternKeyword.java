// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import dev.cachette.internal.limit.LimitedRegex;
import dev.harrel.jsonschema.EvaluationContext;
import dev.harrel.jsonschema.Evaluator;
import dev.harrel.jsonschema.EvaluatorFactory;
import dev.harrel.jsonschema.JsonNode;
import dev.harrel.jsonschema.SchemaParsingContext;
import java.util.Optional;
import java.util.regex.Pattern;

/** The keyword {@code pattern} of JSON Schema, under the time limit of the thread. */
final class PatternKeyword implements Evaluator {

  private final Pattern pattern;

  private PatternKeyword(Pattern pattern) {
    this.pattern = pattern;
  }

  /** Adds the keyword to others; see {@link EvaluatorFactory}. */
  static EvaluatorFactory and(EvaluatorFactory more) {
    return EvaluatorFactory.compose(more, PatternKeyword::create);
  }

  private static Optional<Evaluator> create(
      SchemaParsingContext context, String keyword, JsonNode value) {
    return keyword.equals("pattern") && value.isString()
        ? Optional.of(new PatternKeyword(Pattern.compile(value.asString())))
        : Optional.empty();
  }

  @Override
  public Result evaluate(EvaluationContext context, JsonNode node) {
    return !node.isString() || LimitedRegex.find(pattern, node.asString())
        ? Result.success()
        : Result.failure("\"" + node.asString() + "\" does not match " + pattern);
  }
}
