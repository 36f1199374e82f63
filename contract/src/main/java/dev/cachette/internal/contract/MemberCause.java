// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.openapi.Formats;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Cause;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Why a member is missing: it may have another name, or be elsewhere. */
final class MemberCause {

  private MemberCause() {}

  /**
   * Returns the cause, if one is likely.
   *
   * @param schema the schema of the member
   * @param parent the object that lacks it
   * @param ofParent its schema
   */
  static Optional<Cause> of(String name, JsonNode schema, JsonNode parent, JsonNode ofParent) {
    List<String> others = new ArrayList<>();
    parent.fieldNames().forEachRemaining(others::add);
    others.removeIf(ofParent.path("properties")::has);
    Optional<String> alike = NameSuggester.closest(name, others);
    if (alike.isPresent()) {
      return BodyFindings.likely("renamed: there is \"" + alike.get() + "\"");
    }
    List<String> fitting = others.stream().filter(it -> isA(schema, parent.get(it))).toList();
    if (fitting.size() == 1) {
      return BodyFindings.likely(
          "renamed: there is \"" + fitting.get(0) + "\", which the consumer does not know");
    }
    for (String other : others) {
      JsonNode inner = parent.get(other);
      if (inner.has(name)) {
        return BodyFindings.likely("moved: it is in \"" + other + "\"");
      }
    }
    return Optional.empty();
  }

  private static boolean isA(JsonNode schema, JsonNode value) {
    return schema.has("type")
        && JsonSchemas.ofValid(schema, new Formats()).violations(value).isEmpty();
  }
}
