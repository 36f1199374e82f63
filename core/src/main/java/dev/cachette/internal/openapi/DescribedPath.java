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
 * A path of a description: {@code /stations/{station}/tides}. A variable is one segment, or a part
 * of one.
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

  /** Its variables in a path as it was sent, decoded; empty if that is another one. */
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
   * Whether a path with variables of a stub's may mean this one: {@code /v1/stations/{station}}.
   * Where that says too little to tell, it may.
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

  /** How many variables it has; the path with fewer is meant where several fit. */
  int variables() {
    return names.size();
  }

  @Override
  public String toString() {
    return text;
  }
}
