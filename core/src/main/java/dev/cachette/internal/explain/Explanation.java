package dev.cachette.internal.explain;

import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import dev.cachette.match.RequestPattern;
import java.util.List;
import java.util.Optional;

/**
 * Why no stub answers a call, as text: the cause in its first ten lines, then all of it, in about
 * forty at most.
 */
public final class Explanation {

  /** Which stub wins, said the same way everywhere. */
  public static final String RULE =
      "the inner scope wins, then the more specific request, then the later declaration";

  /** What still fits in is shown; the mend and the rule follow. */
  private static final int MOST_LINES = 38;

  private static final String WEB_SOCKET =
      "It asks for a WebSocket (RFC 6455), which Cachette does not speak; a stub can only refuse "
          + "it,\nas with status(426). Mend: let it through, or give the code another way to "
          + "listen.\n\n";

  private static final String AGAIN =
      "Or, if the service has changed or the call is new, record it: run the test once with\n"
          + "-Dcachette.recording=EXTEND (or REWRITE, for all of it).\n";

  private static final String NO_SERVICE =
      "the call names no service, only the address that Cachette listens at";

  private static final String NAME_IT =
      """
      Mend: call the service through that address as a proxy, name its host in the Host header, or
      let the address stand for it: Settings.standingFor(origin), --for ORIGIN on the command line.
      """;

  private Explanation() {}

  /**
   * A stub, as far as an explanation speaks of it.
   *
   * @param pattern which requests it is for
   * @param reference its name and place
   * @param obstacles why it does not answer even a request that fits
   * @param seen the request as it sees it, where it sees it otherwise
   */
  public record Stub(
      RequestPattern pattern,
      StubReference reference,
      List<Check> obstacles,
      Optional<Request> seen) {

    /** One that sees the request as it came. */
    public Stub(RequestPattern pattern, StubReference reference, List<Check> obstacles) {
      this(pattern, reference, obstacles, Optional.empty());
    }
  }

  /**
   * The explanation of an unexpected call.
   *
   * @param request the call
   * @param stubs all stubs in force, of the inner scope and declared last first; then recordings
   * @param cassettes the cassettes in play that are for it, in words
   * @param toOurself whether it is for an address that we listen at ourselves
   */
  public static String ofUnexpected(
      Request request, List<Stub> stubs, List<String> cassettes, boolean toOurself) {
    List<Candidate> nearest = Candidate.nearest(request, stubs);
    StringBuilder text = new StringBuilder(opening(cassettes)).append(request).append("\n\n");
    if (request.headers().first("upgrade").filter("websocket"::equalsIgnoreCase).isPresent()) {
      text.append(WEB_SOCKET);
    }
    boolean namesNone = toOurself && missService(nearest, stubs);
    if (nearest.isEmpty()) {
      text.append(stubs.isEmpty() ? "There is no stub at all.\n" : far(stubs));
      text.append(namesNone ? "Likely cause: " + NO_SERVICE + ".\n" : "");
    } else {
      text.append(cause(nearest.get(0), stubs));
      text.append(namesNone ? "    cause     " + NO_SERVICE + "\n" : "");
    }
    String details = RequestText.details(request, telling(nearest));
    if (!details.isEmpty()) {
      text.append("\nThe request\n\n").append(details);
    }
    if (!nearest.isEmpty()) {
      Candidate best = nearest.get(0);
      text.append("\nWhat \"")
          .append(best.stub().name())
          .append("\" asks for\n\n")
          .append(best.conditions());
    }
    for (Candidate other : nearest.subList(Math.min(1, nearest.size()), nearest.size())) {
      String section = "\nThen comes " + other.stub() + "\n\n" + other.misses();
      if (lines(text) + lines(section) <= MOST_LINES) {
        text.append(section);
      }
    }
    text.append('\n').append(namesNone ? NAME_IT : mend(request, nearest, stubs));
    return cassettes.isEmpty()
        ? text.append(rule()).toString()
        : text.append(AGAIN).append(rule()).toString();
  }

  private static String opening(List<String> cassettes) {
    return cassettes.isEmpty()
        ? "No stub answers this call.\n\n  "
        : "No stub answers this call, nor does " + String.join(", nor ", cassettes) + ".\n\n  ";
  }

  private static long lines(CharSequence text) {
    return text.chars().filter(c -> c == '\n').count();
  }

  private static String far(List<Stub> stubs) {
    return "None comes near, of " + counted(stubs) + ".\n";
  }

  /** The nearest stub, and the first thing that it lacks. */
  private static String cause(Candidate nearest, List<Stub> stubs) {
    Check miss = nearest.firstMiss();
    Difference first = miss.differences().get(0);
    int more = nearest.verdict().misses().size() - 1;
    return "Nearest, of "
        + counted(stubs)
        + ": "
        + nearest.stub()
        + "\nIt does not answer because of the "
        + miss.name()
        + (more == 0 ? "" : ", and " + more + " more")
        + ":\n    "
        + first.at("").lines("    ")
        + "\n";
  }

  /** The place in the body that tells most; empty text if there is none. */
  private static String telling(List<Candidate> nearest) {
    if (nearest.isEmpty()) {
      return "";
    }
    Check miss = nearest.get(0).firstMiss();
    String place = miss.differences().get(0).at();
    return place.isEmpty() ? miss.condition() : place;
  }

  private static String rule() {
    return "Where several stubs fit, " + RULE + ".\n";
  }

  private static String counted(List<Stub> stubs) {
    long recordings = stubs.stream().filter(stub -> stub.seen.isPresent()).count();
    String declared = plural(stubs.size() - recordings, "stub");
    String recorded = plural(recordings, "recording");
    return recordings == 0
        ? declared
        : recordings == stubs.size() ? recorded : declared + " and " + recorded;
  }

  private static String plural(long count, String what) {
    return count == 1 ? "1 " + what : count + " " + what + "s";
  }

  /** Whether what keeps the nearest stub from answering, or all of them, is their service. */
  private static boolean missService(List<Candidate> nearest, List<Stub> stubs) {
    return nearest.isEmpty()
        ? stubs.stream().anyMatch(stub -> stub.pattern().host().isPresent())
        : nearest.get(0).firstMiss().condition().equals("origin");
  }

  private static String mend(Request request, List<Candidate> nearest, List<Stub> stubs) {
    Optional<Candidate> best = nearest.stream().findFirst();
    Optional<StubReference> like =
        best.map(Candidate::stub).or(() -> stubs.stream().findFirst().map(Stub::reference));
    List<Check> misses = best.map(it -> it.verdict().misses()).orElse(List.of());
    return "Mend: " + new Mends(request, like).of(misses) + "\n";
  }
}
