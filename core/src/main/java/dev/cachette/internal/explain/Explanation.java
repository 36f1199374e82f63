package dev.cachette.internal.explain;

import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.match.Check;
import dev.cachette.match.RequestPattern;
import java.util.List;

/** Why no stub answers a call, as text. */
public final class Explanation {

  private Explanation() {}

  /** A stub, as far as an explanation speaks of it. */
  public interface Stub {

    /** Which requests it is for. */
    RequestPattern pattern();

    /** Its name and place. */
    StubReference reference();
  }

  /**
   * The explanation of an unexpected call.
   *
   * @param request the call
   * @param stubs all stubs in force
   */
  public static String ofUnexpected(Request request, List<? extends Stub> stubs) {
    StringBuilder text = opening(request);
    List<Candidate> nearest = Candidate.nearest(request, stubs);
    if (stubs.isEmpty()) {
      text.append("There is no stub at all.\n");
    } else if (nearest.isEmpty()) {
      text.append("None comes near, of ").append(stubs(stubs.size())).append(".\n");
    }
    for (int at = 0; at < nearest.size(); at++) {
      text.append(at == 0 ? "Fits best, of " + stubs(stubs.size()) + ": " : "\nThen: ");
      text.append(nearest.get(at).stub()).append("\n\n").append(nearest.get(at).conditions());
    }
    return text.append('\n').append(mend(request, nearest)).toString();
  }

  /** The explanation where a stub fits that was never given an answer. */
  public static String ofUnanswered(Request request, StubReference stub) {
    return opening(request)
        .append("Fits: ")
        .append(stub)
        .append(", which has no answer.\n\n")
        .append("Mend: end its declaration with .answer(...).\n")
        .toString();
  }

  private static StringBuilder opening(Request request) {
    return new StringBuilder("No stub answers this call.\n\n")
        .append(RequestText.of(request))
        .append('\n');
  }

  private static String stubs(int count) {
    return count == 1 ? "1 stub" : count + " stubs";
  }

  private static String mend(Request request, List<Candidate> nearest) {
    List<Check> misses = nearest.isEmpty() ? List.of() : nearest.get(0).verdict().misses();
    if (misses.size() == 1) {
      Check miss = misses.get(0);
      return miss.actual().equals(Check.MISSING)
          ? String.format("Mend: send the %s, or leave it out of the stub.\n", miss.condition())
          : String.format(
              "Mend: correct the %s in the code under test, or in the stub.\n", miss.condition());
    }
    Uri uri = request.uri();
    return String.format(
        "Mend: if the call is right, stub it: net.stub(\"%s %s\").answer(...).\n",
        request.method(), uri.origin() + uri.path());
  }
}
