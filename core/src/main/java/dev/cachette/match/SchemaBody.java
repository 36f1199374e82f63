// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;

/** Matches a body that is valid against a JSON Schema. */
final class SchemaBody extends BodyCondition {

  private final JsonSchemas schema;
  private final JsonNode written;
  private final String title;

  SchemaBody(JsonNode schema) {
    this.schema = new JsonSchemas(schema);
    this.written = schema;
    this.title = schema.path("title").asText("the JSON Schema");
  }

  @Override
  Optional<JsonNode> written() {
    return StubNodes.member("body", "jsonSchema", Optional.of(written));
  }

  @Override
  String name() {
    return "body";
  }

  @Override
  String expected() {
    return "JSON that is valid against " + title;
  }

  @Override
  Check check(Content content) {
    Reading<JsonNode> reading = content.jsonReading();
    if (reading.value().isEmpty()) {
      return unreadable(reading.problem());
    }
    List<Difference> differences = schema.differences(reading.value().get());
    return differences.isEmpty()
        ? Check.held(name(), expected())
        : Check.missed(name(), 0.5, expected(), differences);
  }
}
