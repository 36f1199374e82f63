package dev.cachette.internal.explain;

import dev.cachette.match.Check;

/** What to do about a condition that alone does not hold. */
final class Mends {

  private Mends() {}

  static String of(Check miss) {
    return switch (miss.condition()) {
      case "declaration" -> "end its declaration with .answer(...).";
      case "turn" -> "give the stub more answers, or let it answer more often; or call less often.";
      case "after", "from", "until" -> "call in the order and at the time that the stub asks for.";
      case "condition" -> "correct the code under test, or the predicate of the stub.";
      default -> ofRequest(miss);
    };
  }

  private static String ofRequest(Check miss) {
    return miss.differences().get(0).isMissing()
        ? String.format("send the %s, or leave it out of the stub.", miss.name())
        : String.format("correct the %s in the code under test, or in the stub.", miss.name());
  }
}
