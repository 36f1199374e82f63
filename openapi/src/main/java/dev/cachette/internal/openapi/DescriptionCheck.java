// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Checks a whole API description: its schemas and its examples. */
final class DescriptionCheck {

  private final Schemas schemas;

  /** By text: what is referred to twice is reported once. */
  private final Map<String, MalformedDescription> problems = new LinkedHashMap<>();

  DescriptionCheck(Schemas schemas) {
    this.schemas = schemas;
  }

  List<MalformedDescription> problems() {
    return new ArrayList<>(problems.values());
  }

  void look(Operation operation) {
    for (Parameter parameter : operation.parameters()) {
      attempt(() -> value(parameter.at(), parameter.schema(), Direction.REQUEST, true));
    }
    attempt(() -> content(operation.body(), Direction.REQUEST));
    attempt(
        () -> {
          for (Element response : operation.responses().members().values()) {
            attempt(() -> content(response, Direction.RESPONSE));
            for (Element header : response.get("headers").members().values()) {
              attempt(() -> value(header, header.raw("schema"), Direction.RESPONSE, true));
            }
          }
        });
  }

  private void content(Element body, Direction direction) {
    body.get("content")
        .members()
        .forEach(
            (type, media) -> {
              boolean json = BodyFormats.named(Optional.of(type)).isJson();
              attempt(() -> value(media, media.raw("schema"), direction, json));
              attempt(() -> value(media, media.raw("itemSchema"), direction, false));
            });
  }

  /**
   * Checks a schema and the examples next to it.
   *
   * @param isValue whether examples are values, and not their serialised form
   */
  private void value(Element at, Element schema, Direction direction, boolean isValue) {
    if (!schema.isThere()) {
      return;
    }
    schemas.of(schema, direction);
    List<Element> examples = isValue ? ExampleResponses.examples(at) : List.of();
    for (Element example : examples) {
      JsonNode value = example.json();
      for (Difference each : schemas.differences(value, schema, direction)) {
        note(
            example.malformed(
                String.format(
                    "the example is not valid against its schema%s: expected %s, actual %s.",
                    each.at().equals("$") ? "" : " at " + each.at(),
                    each.expected().replace("   (", " ("),
                    each.actual())));
      }
    }
  }

  private void attempt(Runnable look) {
    try {
      look.run();
    } catch (MalformedDescription malformed) {
      note(malformed);
    }
  }

  /** Adds a problem, unless it is known. */
  void note(MalformedDescription problem) {
    problems.putIfAbsent(problem.getMessage(), problem);
  }
}
