// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.run;

import dev.cachette.internal.cassette.RecordedExchanges;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Values that the application generates in a step of a session, such as the identifier of a
 * booking: the later steps use those of now instead of those that were captured.
 */
final class Substitutions {

  /** A shorter value may stand for something else. */
  private static final int SHORTEST = 4;

  private final Map<String, String> values = new LinkedHashMap<>();

  /** Uses a value instead of the one that was captured. */
  void add(String captured, String now) {
    if (captured.length() >= SHORTEST && !captured.equals(now)) {
      values.put(captured, now);
    }
  }

  /** Returns the entries of a file with the values of now. */
  RecordedExchanges in(RecordedExchanges file) {
    return values.isEmpty()
        ? file
        : new RecordedExchanges(
            file.index(), entry -> in(file.text(file.index().entries().indexOf(entry))));
  }

  private String in(String text) {
    String changed = text;
    for (Map.Entry<String, String> each : values.entrySet()) {
      changed =
          Pattern.compile("(?<![A-Za-z0-9])" + Pattern.quote(each.getKey()) + "(?![A-Za-z0-9])")
              .matcher(changed)
              .replaceAll(Matcher.quoteReplacement(each.getValue()));
    }
    return changed;
  }
}
