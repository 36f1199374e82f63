package dev.cachette.calls;

import org.opentest4j.AssertionFailedError;

/** The failure of an assertion that cannot be told, because the log had to drop calls. */
final class IncompleteLog {

  private IncompleteLog() {}

  static void refuse(Log.Entries entries) {
    if (entries.dropped() > 0) {
      throw failure(entries);
    }
  }

  static AssertionFailedError failure(Log.Entries entries) {
    return new AssertionFailedError(
        String.format(
            "This cannot be told: the log holds the last %d calls only, and %d earlier ones were "
                + "dropped.\n\n"
                + "Mend: let it hold more, Settings.maxCalls(...) and maxCallBodies(...), or "
                + "call net.reset() in between.",
            entries.calls().size(), entries.dropped()));
  }
}
