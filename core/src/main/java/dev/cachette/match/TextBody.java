// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Optional;

/** A condition on the body as text. */
final class TextBody extends BodyCondition {

  private final ValueCondition value;

  TextBody(ValueCondition value) {
    this.value = value;
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("body", "text", value.written());
  }

  @Override
  boolean isQuick() {
    return value.isQuick();
  }

  @Override
  String name() {
    return "body";
  }

  @Override
  String expected() {
    return value.describe(TextBody::masked);
  }

  private static String masked(String text) {
    return Masking.body(Optional.empty(), text);
  }

  @Override
  Check check(Content content) {
    Optional<String> problem = content.encodingProblem();
    return problem.isPresent()
        ? unreadable(problem.get())
        : value.check(name(), Found.texts(List.of(content.text()), TextBody::masked));
  }
}
