// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.uri.Hosts;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The host of a request line. A label can be a star, or a variable for one label; a star alone
 * matches any host.
 */
final class HostTemplate {

  private static final String ANY = "*";
  private static final Optional<Map<String, String>> NO_VARIABLES = Optional.of(Map.of());

  private final String text;
  private final List<String> variables;
  private final Optional<Pattern> pattern;

  /** A host as written; labels in braces are variables. */
  HostTemplate(String text) {
    boolean literal = text.indexOf('*') < 0 && text.indexOf('{') < 0;
    this.text = literal ? Hosts.canonical(text) : text;
    this.variables = literal ? List.of() : labels(text).filter(HostTemplate::isVariable).toList();
    this.pattern = literal ? Optional.empty() : Optional.of(compile(text));
  }

  boolean isLiteral() {
    return pattern.isEmpty();
  }

  /** Returns the variables with their values, if the normalised host matches. */
  Optional<Map<String, String>> match(String host) {
    if (pattern.isEmpty()) {
      return text.equals(host) ? NO_VARIABLES : Optional.empty();
    }
    Matcher matcher = pattern.get().matcher(host);
    if (!matcher.matches()) {
      return Optional.empty();
    }
    Map<String, String> values = new LinkedHashMap<>();
    for (int at = 0; at < variables.size(); at++) {
      values.put(inner(variables.get(at)), matcher.group(at + 1));
    }
    return Optional.of(values);
  }

  private static Pattern compile(String text) {
    return text.equals(ANY)
        ? Pattern.compile(".*")
        : Pattern.compile(labels(text).map(HostTemplate::regex).collect(Collectors.joining("\\.")));
  }

  private static String regex(String label) {
    return isVariable(label)
        ? "([^.]+)"
        : label.equals(ANY) ? "[^.]+" : Pattern.quote(Hosts.canonical(label));
  }

  private static boolean isVariable(String label) {
    return label.startsWith("{");
  }

  private static String inner(String variable) {
    return variable.substring(1, variable.length() - 1);
  }

  private static Stream<String> labels(String text) {
    return Stream.of(text.split("\\.", -1));
  }

  @Override
  public String toString() {
    return text;
  }
}
