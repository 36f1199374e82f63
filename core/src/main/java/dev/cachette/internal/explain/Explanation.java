// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.http.Request;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Explains why no stub answers a call: the cause within the first ten lines, then the details, in
 * about forty lines at most.
 */
public final class Explanation {

  /** Which stub wins, in the same words everywhere. */
  public static final String RULE =
      "the inner scope wins, then the more specific request, then the later declaration";

  /** Details are added up to this number of lines; the fix and the rule follow. */
  private static final int MOST_LINES = 38;

  private static final String WEB_SOCKET =
      "It asks for a WebSocket (RFC 6455), which Cachette does not support; a stub can only reject "
          + "it,\nfor example with status(426). Fix: let it through, or use another transport.\n\n";

  private static final String AGAIN =
      "Or, if the service has changed or the call is new, record it: run the test once with\n"
          + "-Dcachette.recording=EXTEND (or REWRITE, to record everything again).\n";

  private static final String NO_SERVICE =
      "the call has no target host, only the address that Cachette listens on";

  private static final String NAME_IT =
      """
      Fix: use that address as a proxy, send the host of the service in the Host header, or serve
      as that service: Settings.servingAs(origin), or --for ORIGIN on the command line.
      """;

  private Explanation() {}

  /**
   * A stub or a recorded exchange, as explanations need it.
   *
   * @param pattern the requests it is for
   * @param reference its name and place
   * @param obstacles returns why it does not answer even a matching request
   * @param seen the request as it sees it, if that differs; with redacted secrets, for example
   */
  public record Stub(
      RequestPattern pattern,
      StubReference reference,
      Supplier<List<Check>> obstacles,
      Optional<Request> seen) {

    /** Returns true for a recorded exchange. */
    boolean isRecorded() {
      return seen.isPresent();
    }

    /** Creates a stub that sees the request as it arrived. */
    public Stub(RequestPattern pattern, StubReference reference, Supplier<List<Check>> obstacles) {
      this(pattern, reference, obstacles, Optional.empty());
    }
  }

  /** Returns the explanation of an unexpected call; its first line says the most. */
  public static Explained ofUnexpected(Request request, Situation situation) {
    List<Stub> stubs = situation.stubs();
    List<Candidate> closest = Candidate.closest(request, stubs);
    StringBuilder text =
        new StringBuilder("Unexpected call: " + request + " (" + inShort(closest, situation))
            .append(")\n\n")
            .append(cassettes(situation));
    if (asksForWebSocket(request)) {
      text.append(WEB_SOCKET);
    }
    boolean namesNone = situation.toOurself() && missService(closest, stubs);
    if (closest.isEmpty()) {
      text.append(stubs.isEmpty() ? "" : none(stubs));
      text.append(namesNone ? "Likely cause: " + NO_SERVICE + ".\n" : "");
    } else {
      text.append(cause(closest.get(0), stubs));
      text.append(namesNone ? "    cause     " + NO_SERVICE + "\n" : "");
    }
    String late = ofEndedTest(request, situation);
    if (!late.isEmpty()) {
      blankLine(text).append(late);
    }
    String details = RequestText.details(request, telling(closest));
    if (!details.isEmpty()) {
      blankLine(text).append("The request\n\n").append(details);
    }
    if (!situation.madeBy().isEmpty()) {
      blankLine(text).append(situation.madeBy());
    }
    if (!closest.isEmpty()) {
      Candidate best = closest.get(0);
      blankLine(text)
          .append("Requirements of \"")
          .append(best.stub().name())
          .append("\"\n\n")
          .append(best.conditions());
    }
    for (Candidate other : closest.subList(Math.min(1, closest.size()), closest.size())) {
      String section = "\nNext closest: " + other.stub() + "\n\n" + other.misses();
      if (lines(text) + lines(section) <= MOST_LINES) {
        text.append(section);
      }
    }
    blankLine(text).append(namesNone ? NAME_IT : fix(request, closest, situation));
    text.append(situation.cassettes().isEmpty() ? "" : AGAIN)
        .append(situation.hasStubs() ? rule() : "");
    return new Explained(text.toString(), closest.stream().map(Candidate::shown).toList());
  }

  /** Returns true if a client asks for a WebSocket (RFC 6455). */
  public static boolean asksForWebSocket(Request request) {
    return request.headers().first("upgrade").filter("websocket"::equalsIgnoreCase).isPresent();
  }

  private static StringBuilder blankLine(StringBuilder text) {
    boolean blank = text.length() > 1 && text.charAt(text.length() - 2) == '\n';
    return blank ? text : text.append('\n');
  }

  /** Returns the cause in a few words, for the first line. */
  private static String inShort(List<Candidate> closest, Situation situation) {
    if (!closest.isEmpty()) {
      Candidate best = closest.get(0);
      return String.format(
          "closest %s \"%s\": %s",
          best.isRecorded() ? "recorded exchange" : "stub",
          best.stub().name(),
          MissReason.inShort(best.firstMiss()));
    }
    if (!situation.stubs().isEmpty()) {
      String what = situation.hasStubs() ? "stub" : "recorded exchange";
      return situation.stubs().size() == 1
          ? "the only " + what + " is not similar"
          : "no " + what + " is similar";
    }
    return situation.cassettes().isEmpty() ? "no stubs are declared" : "nothing is recorded for it";
  }

  private static String cassettes(Situation situation) {
    if (situation.cassettes().isEmpty()) {
      return "";
    }
    return (situation.hasStubs() ? "No stub answers it, nor does " : "It is not in ")
        + String.join(situation.hasStubs() ? ", nor " : " or ", situation.cassettes())
        + ".\n\n";
  }

  /** Returns a sentence on a stub that would have answered, had its test not ended. */
  private static String ofEndedTest(Request request, Situation situation) {
    return situation.ended().stream()
        .filter(stub -> stub.pattern().match(request).isPresent())
        .findFirst()
        .map(
            stub ->
                String.format(
                    "The stub %s matches it, but its test has ended: the call came late, or the"
                        + " stub belongs in @BeforeAll or @BeforeEach.\n",
                    stub.reference()))
        .orElse("");
  }

  private static long lines(CharSequence text) {
    return text.chars().filter(c -> c == '\n').count();
  }

  /** Returns the closest stub, and the first difference. */
  private static String cause(Candidate closest, List<Stub> stubs) {
    Check miss = closest.firstMiss();
    Difference first = miss.differences().get(0);
    int more = closest.verdict().misses().size() - 1;
    return "Closest of "
        + counted(stubs)
        + ": "
        + closest.stub()
        + "\n"
        + MissReason.of(miss)
        + (more == 0 ? "" : ", and " + plural(more, "more condition"))
        + ":\n    "
        + CheckText.lines(first.at(""), "    ")
        + "\n";
  }

  /** Returns the place in the body that differs; empty if there is none. */
  private static String telling(List<Candidate> closest) {
    if (closest.isEmpty()) {
      return "";
    }
    Check miss = closest.get(0).firstMiss();
    String place = miss.differences().get(0).at();
    return place.isEmpty() ? miss.condition() : place;
  }

  private static String rule() {
    return "If several stubs match, " + RULE + ".\n";
  }

  private static String counted(List<Stub> stubs) {
    long recordings = stubs.stream().filter(stub -> stub.seen.isPresent()).count();
    String declared = plural(stubs.size() - recordings, "stub");
    String recorded = plural(recordings, "recorded exchange");
    return recordings == 0
        ? declared
        : recordings == stubs.size() ? recorded : declared + " and " + recorded;
  }

  private static String none(List<Stub> stubs) {
    String what = stubs.get(0).isRecorded() ? "recorded exchange" : "stub";
    return stubs.size() == 1
        ? "The only " + what + ", " + stubs.get(0).reference() + ", is not similar.\n"
        : "None of the " + counted(stubs) + " is similar.\n";
  }

  private static String plural(long count, String what) {
    return count == 1 ? "1 " + what : count + " " + what + "s";
  }

  /** Returns true if the closest stub, or every stub, is for another service. */
  private static boolean missService(List<Candidate> closest, List<Stub> stubs) {
    return closest.isEmpty()
        ? stubs.stream().anyMatch(stub -> MatchInternals.host(stub.pattern()).isPresent())
        : closest.get(0).firstMiss().condition().equals("origin");
  }

  private static String fix(Request request, List<Candidate> closest, Situation situation) {
    Optional<Candidate> best = closest.stream().findFirst();
    if (best.filter(Candidate::isRecorded).isPresent() || !situation.cassettes().isEmpty()) {
      return "Fix: "
          + best.map(it -> RecordingFix.of(it.verdict().misses()))
              .orElse("make the call as it was recorded.")
          + "\n";
    }
    Optional<StubReference> like =
        best.map(Candidate::stub)
            .or(() -> situation.stubs().stream().findFirst().map(Stub::reference));
    List<Check> misses = best.map(it -> it.verdict().misses()).orElse(List.of());
    return "Fix: "
        + new FixSuggestions(request, like).of(misses)
        + "\n"
        + LetThroughFix.of(request, situation.through());
  }
}
