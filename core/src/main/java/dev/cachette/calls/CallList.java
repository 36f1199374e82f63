// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Calls as text, one per line, in aligned columns; a long list shows its head and tail. */
final class CallList {

  private static final int HEAD = 12;
  private static final int TAIL = 4;

  private CallList() {}

  static String of(List<Call> calls) {
    boolean cut = calls.size() > HEAD + TAIL + 1;
    Map<Integer, String> details = CallDetails.of(calls);
    List<String> lines = new ArrayList<>();
    for (int at = 0; at < calls.size(); at++) {
      if (!cut || at < HEAD || at >= calls.size() - TAIL) {
        lines.add(line(at, calls.get(at), details.get(at)));
      } else if (at == HEAD) {
        lines.add("     ... " + (calls.size() - HEAD - TAIL) + " more ...");
      }
    }
    return String.join("\n", lines);
  }

  private static String line(int at, Call call, @Nullable String detail) {
    // Once: the call may get further meanwhile.
    Call.State state = call.state();
    boolean unfinished = state == Call.State.HELD || state == Call.State.SENDING;
    String by = call.stub().map(stub -> "by " + stub).orElse("unexpected");
    return String.format(
        "  %2d. %s%s  ->  %s%s, %s",
        at + 1,
        call.request(),
        detail == null ? "" : "  " + detail,
        call.outcome(),
        unfinished && call.fault().isEmpty() ? ", " + state : "",
        by);
  }
}
