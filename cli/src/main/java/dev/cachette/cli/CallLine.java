// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.calls.Call;
import dev.cachette.control.CallJson;
import dev.cachette.result.StubReference;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;

/** One call in one line. */
final class CallLine {

  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");

  private CallLine() {}

  /** Returns the time of day. */
  static String now() {
    return LocalTime.now().format(TIME);
  }

  static String of(Call call, String time) {
    String failed = call.failure().map(why -> "failed: " + firstLine(why) + "  ").orElse("");
    String stub =
        call.stub()
            .map(StubReference::toString)
            .orElse(CallJson.isUnexpected(call) ? "no stub" : "");
    return time + "  " + call.request() + "  ->  " + call.outcome() + "  " + failed + stub;
  }

  static String firstLine(String text) {
    return text.lines().findFirst().orElse("");
  }
}
