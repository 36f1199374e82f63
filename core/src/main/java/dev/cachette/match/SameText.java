// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.body.TextFormat;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Optional;

/** Matches a body that is exactly this text; otherwise shows the first line that differs. */
final class SameText extends BodyCondition {

  private final String text;

  SameText(String text) {
    this.text = text;
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("body", "sameText", Optional.of(StubNodes.text(text)));
  }

  @Override
  boolean isQuick() {
    return true;
  }

  @Override
  String name() {
    return "body";
  }

  @Override
  String expected() {
    return Quoting.quote(Masking.body(Optional.empty(), text));
  }

  @Override
  Check check(Content content) {
    Optional<String> problem = content.encodingProblem();
    if (problem.isPresent()) {
      return unreadable(problem.get());
    }
    String actual = content.text();
    if (actual.equals(text)) {
      return Check.held(name(), expected());
    }
    return Check.missed(
        name(),
        content.isEmpty() ? 0 : 0.5,
        content.isEmpty() ? empty() : TextFormat.difference(text, actual));
  }

  private Difference empty() {
    return Difference.of(expected(), "an empty body");
  }
}
