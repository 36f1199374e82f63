// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.http.Request;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.content.Content;
import dev.cachette.match.Condition;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;

/** Matches the same body as a recorded one, and locates the differences. */
final class RecordedBody implements Condition {

  private static final String NAME = "body";
  private static final double NEAR = 0.9;
  private static final double NEARER_BY_EACH = 0.1;
  private static final double FAR = 0.2;

  private final Content recorded;
  private final Ignored ignored;

  RecordedBody(Request recorded, Ignored ignored) {
    this.recorded = Content.of(recorded.headers(), recorded.body());
    this.ignored = ignored;
  }

  @Override
  public String description() {
    return "body: the recorded one";
  }

  @Override
  public Check check(Received received) {
    Content actual = MatchInternals.parsed(received).content();
    if (actual.isEmpty()) {
      return Check.missed(NAME, 0, Difference.of("the recorded body", "an empty body"));
    }
    List<Difference> differences = BodyFormats.differences(recorded, actual, ignored);
    return differences.isEmpty()
        ? Check.held(NAME, "the recorded body")
        : Check.missed(
            NAME,
            Math.max(FAR, NEAR - NEARER_BY_EACH * differences.size()),
            "the recorded body",
            differences);
  }
}
