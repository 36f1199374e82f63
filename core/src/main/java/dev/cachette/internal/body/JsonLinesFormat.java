// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.text.Escapes;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;

/**
 * A JSON value in each line, as in bulk requests and streams of events; also JSON text sequences
 * (RFC 7464). Compared as an array of the values, so paths begin with {@code $[0]} or {@code $[*]}.
 */
final class JsonLinesFormat extends TextFormat {

  private static final char RECORD_SEPARATOR = '\u001e';

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.name().endsWith("ndjson")
        || type.name().endsWith("jsonl")
        || type.name().endsWith("jsonlines")
        || type.name().endsWith("/json-seq");
  }

  @Override
  public boolean isLike(Content content) {
    return false;
  }

  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return values(content).value().map(it -> "lines " + CanonicalJson.of(it, ignored.json()));
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    return JsonFormat.differences(
        "lines of JSON", values(expected).value(), values(actual), ignored);
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    return BodyChange.between(
        "lines of JSON",
        values(before).value(),
        values(after).value(),
        (old, now) -> JsonChanges.of(old, now, ignored.json()));
  }

  @Override
  public String escaped(String value) {
    return Escapes.json(value);
  }

  @Override
  public boolean isSequence() {
    return true;
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    return Optional.of(
        fields.isString() ? Reading.of(TextNode.valueOf(content.text())) : values(content));
  }

  private static Reading<JsonNode> values(Content content) {
    ArrayNode values = JsonNodeFactory.instance.arrayNode();
    String[] lines = content.text().replace(RECORD_SEPARATOR, ' ').split("\n");
    for (int at = 0; at < lines.length; at++) {
      String line = lines[at].strip();
      Optional<String> problem = line.isEmpty() ? Optional.empty() : Json.problemIn(line);
      if (problem.isPresent()) {
        return Reading.failed("line " + (at + 1) + ", which is not JSON: " + problem.get());
      }
      if (!line.isEmpty()) {
        values.add(Json.tree(line));
      }
    }
    return Reading.of(values);
  }
}
