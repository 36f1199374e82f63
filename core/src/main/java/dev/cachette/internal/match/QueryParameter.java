package dev.cachette.internal.match;

import dev.cachette.http.Query;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import java.util.List;
import java.util.Optional;

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
    String expected = literal.map(value -> "\"" + value + "\"").orElse("any value");
    List<String> values = query.all(name);
    if (holds(query)) {
      return Check.held(condition, expected);
    }
    return values.isEmpty()
        ? Check.missed(
            condition, 0, Difference.of(expected, Difference.MISSING).because(similarName(query)))
        : Check.missed(
            condition, 0.5, Difference.of(expected, quoted(values)).because(cause(values)));
  }

  private Optional<String> similarName(Query query) {
    return NameSuggester.hint("a parameter", name, query.names());
  }

  private Optional<String> cause(List<String> values) {
    return values.size() == 1
        ? literal.flatMap(wanted -> TextDifference.cause(wanted, values.get(0)))
        : Optional.empty();
  }

  private static String quoted(List<String> values) {
    return "\"" + String.join("\", \"", values) + "\"";
  }
}
