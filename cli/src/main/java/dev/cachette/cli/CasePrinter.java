// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cases.CaptureListener;
import dev.cachette.cases.CapturedCaseInfo;
import dev.cachette.cases.CapturedCaseInfo.Change;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/** Prints cases as they are captured: a line for each, and another one if it changes. */
final class CasePrinter implements CaptureListener {

  private final Output output;
  private final Map<Long, CapturedCaseInfo> last = new TreeMap<>();
  private int doubted;

  CasePrinter(Output output) {
    this.output = output;
  }

  @Override
  public synchronized void written(CapturedCaseInfo captured) {
    CapturedCaseInfo before = last.put(captured.number(), captured);
    if (!captured.equals(before)) {
      print(captured);
    }
  }

  @Override
  public synchronized void doubted(String call, List<Long> possible) {
    doubted++;
    output.notice(
        "An outgoing call cannot be attributed to one of the incoming calls "
            + possible
            + ": "
            + call
            + "\nIt is in background.har. From now on, these calls run one at a time.\n"
            + "Fix: make these calls again.");
  }

  /** Notes that one was removed. */
  synchronized void dropped(long number) {
    last.remove(number);
    output.remark("dropped #" + number);
  }

  /** Prints all of them. */
  void list(List<CapturedCaseInfo> cases) {
    cases.forEach(this::print);
  }

  private void print(CapturedCaseInfo captured) {
    output.result(output.isJson() ? Output.asJsonLine(CaseJson.of(captured)) : line(captured));
  }

  private static String line(CapturedCaseInfo captured) {
    String call =
        captured.incoming().isEmpty()
            ? "outgoing calls without an incoming one"
            : captured.incoming().get(captured.incoming().size() - 1);
    String steps =
        captured.incoming().size() < 2 ? "" : ", " + captured.incoming().size() + " steps";
    String varying =
        captured.varying().isEmpty() ? "" : "  varying: " + String.join(", ", captured.varying());
    return String.format(
        Locale.ROOT,
        "#%-3d %-40s %3s  %2d outgoing  %s (%s%s)%s",
        captured.number(),
        call,
        captured.outcome(),
        captured.outgoing().size(),
        captured.file().getFileName(),
        captured.change().name().toLowerCase(Locale.ROOT),
        steps,
        varying);
  }

  /** Prints how many there are. */
  synchronized void summary(Path folder) {
    long fresh = count(Change.NEW);
    long changed = count(Change.CHANGED);
    long same = count(Change.UNCHANGED);
    output.remark(
        String.format(
            Locale.ROOT,
            "%d %s in %s: %d new, %d changed, %d unchanged%s",
            last.size(),
            last.size() == 1 ? "case" : "cases",
            folder,
            fresh,
            changed,
            same,
            doubted == 0 ? "" : "; " + doubted + " outgoing calls could not be attributed"));
  }

  private long count(Change change) {
    return last.values().stream().filter(it -> it.change() == change).count();
  }
}
