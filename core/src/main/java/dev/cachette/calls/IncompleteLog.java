// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.internal.calls.Log;
import dev.cachette.internal.text.Failed;
import org.opentest4j.AssertionFailedError;

/** The failure of an assertion that cannot be decided because calls were dropped from the log. */
final class IncompleteLog {

  private IncompleteLog() {}

  static void refuse(Log.Entries<Call> entries) {
    if (entries.dropped() > 0) {
      throw failure(entries);
    }
  }

  static AssertionFailedError failure(Log.Entries<Call> entries) {
    return Failed.of(
        String.format(
            "This cannot be decided: the log holds only the last %d calls, and %d earlier calls"
                + " were dropped.\n\n"
                + "Fix: raise Settings.maxCalls(...) and maxCallBodies(...), or call net.reset() in"
                + " between.",
            entries.calls().size(), entries.dropped()));
  }
}
