package dev.cachette.internal.explain;

import dev.cachette.calls.StubReference;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** What is said of stubs that no call used. */
public final class UnusedStubs {

  /** So many are listed, the others are counted. */
  public static final int LISTED = 20;

  private UnusedStubs() {}

  /**
   * A stub that no call used.
   *
   * @param stub the stub
   * @param winner the stub that always wins against it, if there is one
   */
  public record Entry(StubReference stub, Optional<StubReference> winner) {}

  /** The text; there is at least one entry. */
  public static String text(List<Entry> entries) {
    String head =
        entries.size() == 1
            ? "There is a stub that no call used.\n\n"
            : "There are " + entries.size() + " stubs that no call used.\n\n";
    String list =
        entries.stream().limit(LISTED).map(UnusedStubs::listed).collect(Collectors.joining());
    String more =
        entries.size() > LISTED ? "  ... " + (entries.size() - LISTED) + " more ...\n" : "";
    return head
        + list
        + more
        + "\nMend: delete what the code under test does not need, or see why it did not call.\n";
  }

  private static String listed(Entry entry) {
    return "  "
        + entry.stub()
        + "\n"
        + entry
            .winner()
            .map(
                winner ->
                    "    can never be reached: "
                        + winner
                        + " always wins\n    (the inner scope wins, then the more specific "
                        + "request, then the later declaration)\n")
            .orElse("");
  }
}
