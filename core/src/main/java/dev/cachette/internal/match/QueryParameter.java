// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.http.Query;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A query parameter of a request line.
 *
 * @param name its name, decoded
 * @param literal one of its values must be this one; empty for any
 * @param variable the variable that its first value is bound to, or empty if none
 */
record QueryParameter(String name, Optional<String> literal, Optional<String> variable) {

  boolean holds(Query query) {
    List<String> values = query.all(name);
    return literal.map(values::contains).orElse(!values.isEmpty());
  }

  Check examine(Query query) {
    String condition = "query " + name;
    String expected =
        literal.map(value -> "\"" + Masking.field(name, value) + "\"").orElse("any value");
    List<String> values = query.all(name);
    if (holds(query)) {
      return Check.held(condition, expected);
    }
    return values.isEmpty()
        ? Check.missed(
            condition, 0, Difference.of(expected, Difference.MISSING).because(similarName(query)))
        : Check.missed(condition, 0.5, Difference.of(expected, quoted(values)).with(cause(values)));
  }

  private Optional<String> similarName(Query query) {
    return NameSuggester.hint("a parameter", name, query.names());
  }

  private Optional<Cause> cause(List<String> values) {
    return values.size() == 1
        ? literal.flatMap(wanted -> TextDifference.cause(wanted, values.get(0)))
        : Optional.empty();
  }

  private String quoted(List<String> values) {
    return values.stream()
        .map(value -> "\"" + Masking.field(name, value) + "\"")
        .collect(Collectors.joining(", "));
  }
}
