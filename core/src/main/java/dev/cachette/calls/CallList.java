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
    return of(calls, List.of());
  }

  /**
   * Returns calls, some of which had not been answered completely at the time.
   *
   * @param pending these
   */
  static String of(List<Call> calls, List<Call> pending) {
    boolean cut = calls.size() > HEAD + TAIL + 1;
    Map<Integer, String> details = CallDetails.of(calls);
    List<String> lines = new ArrayList<>();
    for (int at = 0; at < calls.size(); at++) {
      if (!cut || at < HEAD || at >= calls.size() - TAIL) {
        String state = pending.contains(calls.get(at)) ? ", not written completely" : "";
        lines.add(line(at, calls.get(at), details.get(at), state));
      } else if (at == HEAD) {
        lines.add("     ... " + (calls.size() - HEAD - TAIL) + " more ...");
      }
    }
    return String.join("\n", lines);
  }

  private static String line(int at, Call call, @Nullable String detail, String state) {
    String by = call.stub().map(stub -> "by " + stub).orElse("unexpected");
    return String.format(
        "  %2d. %s%s  ->  %s%s, %s",
        at + 1, call.request(), detail == null ? "" : "  " + detail, call.outcome(), state, by);
  }
}
