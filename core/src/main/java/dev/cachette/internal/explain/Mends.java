package dev.cachette.internal.explain;

import dev.cachette.http.Request;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import java.util.Set;

/** What to do about a condition that alone does not hold: one thing that works. */
final class Mends {

  private static final Set<String> OF_REQUEST_LINE = Set.of("method", "origin", "path");
  private static final String NOT_A_NUMBER = "  (text, not a number)";
  private static final String NOT_TEXT = "  (a number, not text)";

  private Mends() {}

  static String of(Check miss, Request request) {
    return switch (miss.condition()) {
      case "declaration" -> "end its declaration with .answer(...).";
      case "turn" -> "give the stub more answers, or let it answer more often; or call less often.";
      case "after", "from", "until" -> "call in the order and at the time that the stub asks for.";
      case "condition" -> "correct the code under test, or the predicate of the stub.";
      default -> OF_REQUEST_LINE.contains(miss.condition()) ? ofLine(request) : ofValue(miss);
    };
  }

  /** If the call is right, this is how its stub begins. */
  static String ofLine(Request request) {
    return String.format(
        "correct the call; or, if it is right, stub it: net.stub(\"%s %s\").answer(...).",
        request.method(), request.uri().origin() + request.uri().path());
  }

  private static String ofValue(Check miss) {
    Difference first = miss.differences().get(0);
    if (first.isMissing()) {
      return String.format("send the %s, or leave it out of the stub.", miss.name());
    }
    String actual = first.actual();
    boolean value = miss.condition().startsWith("json ");
    if (value && actual.endsWith(NOT_A_NUMBER)) {
      return "send a number, or accept text: " + accepting(miss, actual, NOT_A_NUMBER);
    }
    if (value && actual.endsWith(NOT_TEXT)) {
      return "send text, or accept a number: " + accepting(miss, actual, NOT_TEXT);
    }
    return String.format("correct the %s in the code under test, or in the stub.", miss.name());
  }

  /** The condition that the value would fulfil; it stands in the message as it does in Java. */
  private static String accepting(Check miss, String actual, String remark) {
    String value = actual.substring(0, actual.length() - remark.length());
    String path = miss.condition().substring("json ".length());
    return String.format(".json(\"%s\", is(%s)).", path, value);
  }
}
