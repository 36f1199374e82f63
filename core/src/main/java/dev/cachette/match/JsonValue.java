// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Optional;

/** Matches a body that has a matching value at a place in its JSON. */
final class JsonValue extends BodyCondition {

  private final JsonQuery query;
  private final ValueCondition value;

  JsonValue(JsonQuery query, ValueCondition value) {
    this.query = query;
    this.value = value;
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("json", query.toString(), value.written());
  }

  @Override
  boolean isQuick() {
    return query.isSingular() && value.isQuick();
  }

  @Override
  String name() {
    return "json " + query;
  }

  @Override
  String expected() {
    return value.describe(text -> Masking.value(query.name(), text));
  }

  @Override
  Check check(Content content) {
    Reading<JsonNode> reading = content.jsonReading();
    if (reading.value().isEmpty()) {
      return unreadable(reading.problem());
    }
    return check(name(), query, value, reading.value().get());
  }

  /** Tests the value at a place in JSON; if there is none, explains why. */
  static Check check(String name, JsonQuery query, ValueCondition value, JsonNode root) {
    Found found =
        Found.json(
            query.find(root).stream().map(Located::node).toList(),
            text -> Masking.value(query.name(), text));
    Check check = value.check(name, found);
    if (check.holds() || !found.isEmpty()) {
      return check;
    }
    Optional<String> cause = query.whyNothing(root);
    return Check.missed(
        name,
        cause.filter(why -> why.contains("but no")).isPresent() ? 0.4 : 0.1,
        check.expected(),
        List.of(check.differences().get(0).because(cause)));
  }
}
