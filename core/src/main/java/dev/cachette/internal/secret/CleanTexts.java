// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import java.util.HashSet;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * Remembers texts without secrets: headers, media types and the like are the same in most calls.
 * Thread-safe.
 */
final class CleanTexts {

  /** Longer ones hardly repeat. */
  private static final int LONGEST = 300;

  private static final int MOST = 4_000;

  private final Set<String> known = new HashSet<>();

  /** Returns the text with its secrets replaced, which is not tried again if it has none. */
  String change(String text, UnaryOperator<String> change) {
    return change("", text, change);
  }

  /** As {@link #change(String, UnaryOperator)}, for a text that has a name. */
  String change(String name, String text, UnaryOperator<String> change) {
    if (text.length() > LONGEST) {
      return change.apply(text);
    }
    String key = name.isEmpty() ? text : name + '\n' + text;
    if (isKnown(key)) {
      return text;
    }
    String changed = change.apply(text);
    if (changed.equals(text)) {
      add(key);
    }
    return changed;
  }

  private synchronized boolean isKnown(String key) {
    return known.contains(key);
  }

  private synchronized void add(String key) {
    if (known.size() >= MOST) {
      known.clear();
    }
    known.add(key);
  }
}
