// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** The report on stubs that no call used. */
public final class UnusedStubsReport {

  /** This many are listed; the others are counted. */
  public static final int LISTED = 20;

  private static final String RULE = "    (" + Explanation.RULE + "; overriding() changes that)\n";

  private UnusedStubsReport() {}

  /**
   * A stub that no call used.
   *
   * @param stub the stub
   * @param winner the stub that always wins over it, if there is one
   * @param beaten the number of calls that it matches and another stub answered
   * @param beatenBy the last stub that won over it
   */
  public record Entry(
      StubReference stub,
      Optional<StubReference> winner,
      int beaten,
      Optional<StubReference> beatenBy) {}

  /** Returns the report for at least one entry. */
  public static String text(List<Entry> entries) {
    String head =
        entries.size() == 1 ? "1 unused stub:\n\n" : entries.size() + " unused stubs:\n\n";
    String list =
        entries.stream().limit(LISTED).map(UnusedStubsReport::listed).collect(Collectors.joining());
    String more =
        entries.size() > LISTED ? "  ... " + (entries.size() - LISTED) + " more ...\n" : "";
    return head
        + list
        + more
        + "\n"
        + "Fix: delete stubs that the code under test does not need, or find out why it made no"
        + " call.\n";
  }

  private static String listed(Entry entry) {
    return "  "
        + entry.stub()
        + "\n"
        + entry.winner().map(UnusedStubsReport::unreachable).orElseGet(() -> beaten(entry));
  }

  private static String unreachable(StubReference winner) {
    return "    unreachable: " + winner + " always wins\n" + RULE;
  }

  private static String beaten(Entry entry) {
    return entry
        .beatenBy()
        .map(
            winner ->
                String.format(
                    "    it matches %s, but %s won%n%s",
                    entry.beaten() == 1 ? "1 call" : entry.beaten() + " calls", winner, RULE))
        .map(text -> text.replace("\r\n", "\n"))
        .orElse("");
  }
}
