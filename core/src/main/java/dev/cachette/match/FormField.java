// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.MediaType;
import dev.cachette.http.Query;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Optional;

/** A condition on a field of a URL-encoded form. */
final class FormField extends BodyCondition {

  private final String field;
  private final ValueCondition value;

  FormField(String field, ValueCondition value) {
    this.field = field;
    this.value = value;
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("form", field, value.written());
  }

  @Override
  boolean isQuick() {
    return value.isQuick();
  }

  @Override
  String name() {
    // A body that is called a form, but is none, has names such as {"password": "x"}.
    return "form " + Masking.body(Optional.empty(), field);
  }

  @Override
  String expected() {
    return value.describe(this::masked);
  }

  @Override
  Check check(Content content) {
    Optional<String> problem = content.encodingProblem().or(() -> otherType(content));
    if (problem.isPresent()) {
      return unreadable(problem.get());
    }
    Query form = content.form();
    Check check = value.check(name(), Found.texts(form.all(field), this::masked));
    if (check.holds() || form.names().contains(field)) {
      return check;
    }
    Optional<String> near = NameSuggester.hint("a field", field, form.names());
    return Check.missed(
        name(),
        near.isPresent() ? 0.3 : 0,
        check.expected(),
        List.of(check.differences().get(0).because(near)));
  }

  private String masked(String text) {
    return Masking.field(field, text);
  }

  /**
   * Returns the parameters, unless the content type names another format; a missing type is
   * accepted.
   */
  private static Optional<String> otherType(Content content) {
    return content
        .mediaType()
        .filter(type -> !type.subtype().equals("x-www-form-urlencoded"))
        .map(MediaType::toString)
        .map(type -> "content of type " + type + ", not application/x-www-form-urlencoded");
  }
}
