// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.JsonComparison;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.text.Escapes;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;

/** JSON (RFC 8259). */
final class JsonFormat implements BodyFormat {

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.isKindOf("json");
  }

  @Override
  public boolean isLike(Content content) {
    return content.json().filter(JsonNode::isContainerNode).isPresent();
  }

  @Override
  public boolean isJson() {
    return true;
  }

  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return content.json().map(json -> "json " + CanonicalJson.of(json, ignored.json()));
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    return differences("JSON", expected.json(), actual.jsonReading(), ignored);
  }

  /** Returns the differences from a value, if that could be read. */
  static Optional<List<Difference>> differences(
      String what, Optional<JsonNode> expected, Reading<JsonNode> actual, Ignored ignored) {
    List<JsonQuery> skipped = ignored.json().stream().map(JsonQuery::parse).toList();
    return expected.map(
        json ->
            actual
                .value()
                .map(have -> new JsonComparison(json, true, false, skipped).differences(have))
                .orElseGet(() -> List.of(Difference.of(what, actual.problem()))));
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    return BodyChange.between(
        "JSON",
        before.json(),
        after.json(),
        (old, now) -> JsonChanges.of(old, now, ignored.json()));
  }

  @Override
  public String shown(Content content) {
    return content.json().map(JsonNode::toPrettyString).orElseGet(content::text);
  }

  @Override
  public String escaped(String value) {
    return Escapes.json(value);
  }

  @Override
  public Optional<JsonNode> condition(Content content) {
    return content.json().map(json -> StubNodes.member("sameJson", json));
  }

  /** Returns JSON that is the same text when it is written again. */
  @Override
  public Optional<AnswerForm> answer(Content content) {
    return content
        .json()
        .filter(json -> json.toString().equals(content.text()))
        .map(json -> new AnswerForm("json", json, "application/json"));
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    return Optional.of(content.jsonReading());
  }
}
