// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Placeholders for secrets in a cassette: {@code {{name}}}. */
final class CassettePlaceholders {

  private static final Pattern PLACEHOLDER = Pattern.compile("\\{\\{([A-Za-z0-9_-]+)");

  private CassettePlaceholders() {}

  /** Returns the names of those in a text, in order. */
  static Set<String> in(String text) {
    Set<String> names = new TreeSet<>();
    Matcher placeholder = PLACEHOLDER.matcher(text);
    while (placeholder.find()) {
      names.add(placeholder.group(1));
    }
    return names;
  }
}
