// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.internal.uri.Percent;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A path of an API description: {@code /stations/{station}/tides}. A variable is one segment, or a
 * part of one.
 */
final class DescribedPath {

  private static final Pattern VARIABLE = Pattern.compile("\\{([^{}/]+)}");

  private final String text;
  private final List<String> names = new ArrayList<>();
  private final Pattern pattern;

  DescribedPath(String text) {
    this.text = text;
    StringBuilder regex = new StringBuilder();
    Matcher variable = VARIABLE.matcher(text);
    int at = 0;
    while (variable.find()) {
      regex.append(Pattern.quote(text.substring(at, variable.start()))).append("([^/]+)");
      names.add(variable.group(1));
      at = variable.end();
    }
    regex.append(Pattern.quote(text.substring(at)));
    this.pattern = Pattern.compile(regex.toString());
  }

  /** Returns its variables for a path as it was sent, decoded; empty if the path does not match. */
  Optional<Map<String, String>> match(String path) {
    Matcher matcher = pattern.matcher(path);
    if (!matcher.matches()) {
      return Optional.empty();
    }
    Map<String, String> values = new LinkedHashMap<>();
    for (int at = 0; at < names.size(); at++) {
      values.put(names.get(at), Percent.decode(matcher.group(at + 1)));
    }
    return Optional.of(values);
  }

  /**
   * Returns true if a stub's path with variables may be this one: {@code /v1/stations/{station}}.
   * If that cannot be decided, it may.
   */
  boolean mayMean(String template) {
    if (template.contains("{+") || template.contains("{/") || template.contains("*")) {
      return true;
    }
    String[] own = text.split("/", -1);
    String[] other = template.split("/", -1);
    boolean alike = own.length == other.length;
    for (int at = 0; alike && at < own.length; at++) {
      alike = own[at].equals(other[at]) || own[at].contains("{") || other[at].contains("{");
    }
    return alike;
  }

  /** Returns the number of variables; if several paths match, the one with the fewest is meant. */
  int variables() {
    return names.size();
  }

  @Override
  public String toString() {
    return text;
  }
}
