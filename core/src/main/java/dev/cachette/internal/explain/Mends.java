package dev.cachette.internal.explain;

import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What to do about a call that no stub answers: one thing that works, said as stubs are written
 * there, in Java or in a file.
 */
final class Mends {

  private static final Set<String> OF_REQUEST_LINE = Set.of("method", "origin", "path");
  private static final String NOT_A_NUMBER = "  (text, not a number)";
  private static final String NOT_TEXT = "  (a number, not text)";
  private static final Pattern IN_FILE = Pattern.compile("(.+\\.(?:yaml|yml|json)):\\d+");

  private final Request request;

  /** The file that the stub is in; null if it is in Java. */
  private final @Nullable String file;

  /**
   * For this call.
   *
   * @param like the stub that says how stubs are written there; none if there is none
   */
  Mends(Request request, Optional<StubReference> like) {
    this.request = request;
    Matcher place = IN_FILE.matcher(like.map(StubReference::place).orElse(""));
    this.file = place.matches() ? place.group(1) : null;
  }

  /** What to do about what the nearest stub misses, if that is one thing. */
  String of(List<Check> misses) {
    return misses.size() == 1 ? of(misses.get(0)) : ofLine();
  }

  private String of(Check miss) {
    return switch (miss.condition()) {
      case "declaration" -> "end its declaration with .answer(...).";
      case "turn" -> "give the stub more answers, or let it answer more often; or call less often.";
      case "after", "from", "until" -> "call in the order and at the time that the stub asks for.";
      case "condition" -> "correct the code under test, or the predicate of the stub.";
      default -> OF_REQUEST_LINE.contains(miss.condition()) ? ofLine() : ofValue(miss);
    };
  }

  /** If the call is right, this is how its stub begins. */
  private String ofLine() {
    String line = request.method() + " " + request.uri().origin() + request.uri().path();
    return file == null
        ? String.format(
            "correct the call; or, if it is right, stub it: net.stub(\"%s\").answer(...).", line)
        : String.format(
            "correct the call; or, if it is right, stub it in %s:\n"
                + "  - request: %s\n    answer: { json: {} }\n",
            file, line);
  }

  private String ofValue(Check miss) {
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

  /** The condition that the value would fulfil; the value is the same in Java, JSON and YAML. */
  private String accepting(Check miss, String actual, String remark) {
    String value = actual.substring(0, actual.length() - remark.length());
    String path = miss.condition().substring("json ".length());
    return String.format(
        file == null ? ".json(\"%s\", is(%s))." : "json: { \"%s\": %s }", path, value);
  }
}
