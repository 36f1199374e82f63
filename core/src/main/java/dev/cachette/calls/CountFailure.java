// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.internal.calls.Log;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.explain.SilentConnections;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.match.Verdict;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.Check;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.opentest4j.AssertionFailedError;

/** The failure of an assertion on the number of calls. */
final class CountFailure {

  private static final String NOTHING_CALLED =
      """
      No calls were made. Likely cause: the code under test did not reach the call, or it calls
      this machine, which is intercepted only if a stub has its host and port.\
      """;

  /** The nearness of a path that differs in a slash or in letter case only. */
  private static final double ALMOST = 0.96;

  private CountFailure() {}

  static AssertionFailedError of(
      int least, int most, Selection selection, Log.Entries<Call> entries) {
    List<Call> selected = selection.from(entries.calls());
    String expected = expected(least, most, selection);
    return Failed.of(
        "Expected "
            + expected
            + ", but there "
            + were(selected.size())
            + ".\n\n"
            + made(selection, entries),
        expected,
        selection.counted(selected.size()));
  }

  static AssertionFailedError ofTimeout(
      int count, Duration atMost, int pending, Selection selection, Log.Entries<Call> entries) {
    int delivered = selection.from(entries.calls()).size() - pending;
    String unfinished =
        pending == 0
            ? ""
            : "\n" + selection.counted(pending) + " arrived, but not answered completely.";
    return Failed.of(
        entries
                .interruptedAfter()
                .map(time -> "Interrupted after " + seconds(time) + " of waiting")
                .orElse("Waited " + seconds(atMost))
            + " for "
            + expected(count, Integer.MAX_VALUE, selection)
            + ", but there "
            + were(delivered)
            + "."
            + unfinished
            + "\n\n"
            + made(selection, entries));
  }

  private static String expected(int least, int most, Selection selection) {
    if (most == 0) {
      return "no call" + selection.of();
    }
    if (least == most) {
      return "exactly " + selection.counted(least);
    }
    if (most == Integer.MAX_VALUE) {
      return "at least " + selection.counted(least);
    }
    return least == 0
        ? "at most " + selection.counted(most)
        : least + " to " + selection.counted(most);
  }

  private static String seconds(Duration time) {
    return time.toMillis() % 1000 == 0 ? time.toSeconds() + " s" : time.toMillis() + " ms";
  }

  private static String were(int count) {
    return count == 0 ? "was none" : count == 1 ? "was 1" : "were " + count;
  }

  private static String made(Selection selection, Log.Entries<Call> entries) {
    List<Call> all = entries.calls();
    String silent =
        entries.silent().isEmpty() ? "" : "\n\n" + SilentConnections.text(entries.silent());
    String through = LetThroughText.of(entries.tried());
    return (all.isEmpty()
            ? silent.isEmpty() && through.isEmpty() ? NOTHING_CALLED : "No calls were made."
            : made(selection, all))
        + silent.stripTrailing()
        + through;
  }

  private static String made(Selection selection, List<Call> all) {
    List<Call> selected = selection.from(all);
    List<Call> others = selection.others(all);
    StringBuilder text = new StringBuilder();
    selection.pattern().ifPresent(pattern -> text.append(closest(pattern, others)));
    if (!selected.isEmpty()) {
      text.append("Matching calls:\n").append(CallList.of(selected)).append('\n');
    }
    if (!others.isEmpty()) {
      text.append(selected.isEmpty() ? "Actual calls:\n" : "Other calls:\n");
      text.append(CallList.of(others)).append('\n');
    }
    return text.toString().stripTrailing();
  }

  /**
   * Returns a warning if no call matches, but one differs only in what is likely a misspelled path.
   */
  static Optional<String> nearMiss(Selection selection, Log.Entries<Call> entries) {
    return selection.pattern().stream()
        .flatMap(
            pattern ->
                entries.calls().stream()
                    .map(
                        call -> new Closest(call, MatchInternals.examine(pattern, call.request()))))
        .filter(Closest::isMisspelled)
        .findFirst()
        .map(
            near ->
                String.format(
                    "There is no call%s, as asserted, but the URL may be misspelled there: %s was"
                        + " called.",
                    selection.of(), near.call.request()));
  }

  /** Appends how the closest call differs; nothing if no call is similar. */
  private static String closest(RequestPattern pattern, List<Call> others) {
    return others.stream()
        .map(call -> new Closest(call, MatchInternals.examine(pattern, call.request())))
        .filter(candidate -> candidate.verdict.nearness() >= 0.5)
        .max(Comparator.comparingDouble(candidate -> candidate.verdict.nearness()))
        .map(
            candidate ->
                new Closest(
                    candidate.call,
                    candidate.verdict.masked(RequestMask.of(candidate.call.request()))))
        .map(Closest::toString)
        .orElse("");
  }

  private record Closest(Call call, Verdict verdict) {

    /** Returns true if it differs in the path only, and there is a known cause. */
    boolean isMisspelled() {
      List<Check> misses = verdict.misses();
      return misses.size() == 1
          && misses.get(0).condition().equals("path")
          && misses.get(0).differences().get(0).cause().stream()
              .anyMatch(cause -> !cause.isCertain() || misses.get(0).nearness() >= ALMOST);
    }

    @Override
    public String toString() {
      StringBuilder text =
          new StringBuilder("Closest match:\n\n")
              .append(RequestText.of(call.request()))
              .append('\n');
      for (Check miss : verdict.misses()) {
        text.append(CheckText.lines(miss));
      }
      if (verdict.fits()) {
        text.append("  matches, but ")
            .append(call.stub().map(by -> by + " answered it").orElse("no stub answered it"))
            .append("\n  (")
            .append(Explanation.RULE)
            .append(")\n");
      }
      return text.append('\n').toString();
    }
  }
}
