package dev.cachette.calls;

import dev.cachette.match.Check;
import dev.cachette.match.RequestPattern;
import dev.cachette.match.Verdict;
import java.util.Comparator;
import java.util.List;
import org.opentest4j.AssertionFailedError;

/** The failure of an assertion on how many calls there were. */
final class CountFailure {

  private static final String NOTHING_CALLED =
      """
      No call was made at all. Likely cause: the code under test did not get that far, or it calls
      this machine itself, which is intercepted only where a stub names its host and port.""";

  private CountFailure() {}

  static AssertionFailedError exactly(
      int expected, Selection selection, List<Call> selected, List<Call> all) {
    String wanted =
        expected == 0 ? "no call" + of(selection) : "exactly " + selection.counted(expected);
    return new AssertionFailedError(
        "Expected "
            + wanted
            + ", but there "
            + were(selected.size())
            + ".\n\n"
            + made(selection, all),
        selection.counted(expected),
        selection.counted(selected.size()));
  }

  static AssertionFailedError some(Selection selection, List<Call> all) {
    return new AssertionFailedError(
        "Expected at least 1 call"
            + of(selection)
            + ", but there was none.\n\n"
            + made(selection, all));
  }

  private static String of(Selection selection) {
    return selection.description().isEmpty() ? "" : " of " + selection.description();
  }

  private static String were(int count) {
    return count == 0 ? "was none" : count == 1 ? "was 1" : "were " + count;
  }

  private static String made(Selection selection, List<Call> all) {
    if (all.isEmpty()) {
      return NOTHING_CALLED;
    }
    List<Call> selected = selection.from(all);
    List<Call> others = selection.others(all);
    StringBuilder text = new StringBuilder();
    if (!selected.isEmpty()) {
      text.append("The calls that fit:\n").append(CallList.of(selected)).append('\n');
    }
    if (!others.isEmpty()) {
      text.append(selected.isEmpty() ? "The calls that were made:\n" : "The other calls:\n");
      text.append(CallList.of(others)).append('\n');
    }
    selection.pattern().ifPresent(pattern -> text.append(nearest(pattern, others)));
    return text.toString().stripTrailing();
  }

  /** What the call that came nearest lacks; nothing if no call came near. */
  private static String nearest(RequestPattern pattern, List<Call> others) {
    return others.stream()
        .map(call -> new Nearest(call, pattern.examine(call.request())))
        .filter(candidate -> candidate.verdict.nearness() >= 0.5)
        .max(Comparator.comparingDouble(candidate -> candidate.verdict.nearness()))
        .map(Nearest::toString)
        .orElse("");
  }

  private record Nearest(Call call, Verdict verdict) {

    @Override
    public String toString() {
      StringBuilder text = new StringBuilder("\nComes nearest: " + call.request() + "\n\n");
      for (Check miss : verdict.misses()) {
        text.append(miss.lines(miss.condition().length()));
      }
      return text.toString();
    }
  }
}
