package dev.cachette.cli;

import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What stands in a cassette in place of secrets: {@code {{name}}}. */
final class Markers {

  private static final Pattern MARKER = Pattern.compile("\\{\\{([A-Za-z0-9_-]+)");

  private Markers() {}

  /** The names of those in a text, in order. */
  static Set<String> in(String text) {
    Set<String> names = new TreeSet<>();
    Matcher marker = MARKER.matcher(text);
    while (marker.find()) {
      names.add(marker.group(1));
    }
    return names;
  }
}
