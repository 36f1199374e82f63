package dev.cachette.internal.stub;

import dev.cachette.http.Request;
import dev.cachette.internal.explain.RequestText;
import dev.cachette.match.Received;
import java.util.Map;
import java.util.Optional;
import org.opentest4j.AssertionFailedError;

/** Something of the user's own threw while a stub was asked. */
final class StubFailed extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final transient StubRule rule;

  StubFailed(StubRule rule, Throwable cause) {
    super(cause.toString(), cause);
    this.rule = rule;
  }

  /** Whether a request fits a stub. */
  static Optional<Map<String, String>> match(StubRule rule, Received received) {
    try {
      return rule.pattern().match(received);
    } catch (RuntimeException | Error thrown) {
      throw new StubFailed(rule, thrown);
    }
  }

  /** What fails the test. */
  AssertionFailedError failure(Request request) {
    Throwable cause = getCause();
    String what =
        cause instanceof AssertionError && cause.getMessage() != null
            ? cause.getMessage().stripTrailing()
            : "threw " + cause;
    return new AssertionFailedError(
        String.format(
            "The stub %s could not answer a call: %s\n\n%s",
            rule.reference(), what, RequestText.of(request)),
        cause);
  }
}
