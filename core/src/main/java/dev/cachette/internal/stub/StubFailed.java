package dev.cachette.internal.stub;

import dev.cachette.http.Request;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.util.Map;
import java.util.Optional;
import org.opentest4j.AssertionFailedError;

/** Thrown if user code throws while a stub is tested or answers. */
final class StubFailed extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final transient StubRule rule;

  StubFailed(StubRule rule, Throwable cause) {
    super(cause.toString(), cause);
    this.rule = rule;
  }

  /** Creates the failure of a predicate. */
  static Optional<Map<String, String>> match(StubRule rule, Received received) {
    try {
      return MatchInternals.match(rule.pattern(), received);
    } catch (RuntimeException | Error thrown) {
      throw new StubFailed(rule, thrown);
    }
  }

  /** Returns the failure of the test. */
  AssertionFailedError failure(Request request) {
    Throwable cause = getCause();
    String what =
        cause instanceof AssertionError && cause.getMessage() != null
            ? cause.getMessage().stripTrailing()
            : "threw " + cause;
    return Failed.of(
        String.format(
            "The stub %s failed to answer: %s\n\n%s",
            rule.reference(), what, RequestText.of(request)),
        cause);
  }
}
