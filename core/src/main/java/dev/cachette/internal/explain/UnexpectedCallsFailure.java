// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.internal.text.Failed;
import java.util.Collection;
import java.util.List;
import org.opentest4j.AssertionFailedError;

/** The failure at the end of a test that made unexpected calls. */
public final class UnexpectedCallsFailure {

  private static final int EXPLAINED = 3;
  private static final int LISTED = 20;

  private UnexpectedCallsFailure() {}

  /**
   * An unexpected call, or several of the same kind.
   *
   * @param summary the request line, or what arrived instead of a request
   * @param explanation why nothing answered it
   * @param times how often it was called
   */
  public record Entry(String summary, String explanation, int times) {}

  /** Returns the failure for at least one entry. */
  public static AssertionFailedError failure(Collection<Entry> entries) {
    List<Entry> all = List.copyOf(entries);
    if (all.size() == 1) {
      Entry only = all.get(0);
      String times = only.times() == 1 ? "" : "\nThe call was made " + only.times() + " times.\n";
      return Failed.of(only.explanation() + times);
    }
    StringBuilder text =
        new StringBuilder()
            .append(all.size())
            .append(" unexpected calls, the first: ")
            .append(all.get(0).summary())
            .append("\n\n");
    for (int at = 0; at < Math.min(all.size(), LISTED); at++) {
      text.append(listed(at, all.get(at)));
    }
    if (all.size() > LISTED) {
      text.append("      ... ").append(all.size() - LISTED).append(" more ...\n");
    }
    for (int at = 0; at < Math.min(all.size(), EXPLAINED); at++) {
      text.append("\n--- ").append(at + 1).append(" ---\n").append(all.get(at).explanation());
    }
    return Failed.of(text.toString());
  }

  private static String listed(int at, Entry entry) {
    String times = entry.times() == 1 ? "" : "  (" + entry.times() + " times)";
    return String.format("  %2d. %s%s\n", at + 1, entry.summary(), times);
  }
}
