// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.json.StubNodes;
import java.util.List;

/** The JSON Schema of stub files (2020-12), made from their keys. */
public final class StubFileSchema {

  private StubFileSchema() {}

  /** Returns the schema. */
  public static ObjectNode document() {
    ObjectNode schema = StubNodes.object();
    schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
    schema.put("title", "Stub file of Cachette");
    schema.put("description", "Stubs as YAML or JSON: which requests are answered, and how.");
    schema.setAll(Shape.mapping(FileKeys.ALL).schema());
    ObjectNode definitions = schema.putObject("$defs");
    definitions.set("stub", stub());
    definitions.set("condition", shareable("A requirement for requests.", ConditionKeys.ALL));
    define(
        definitions,
        "value",
        "A plain value is that value; a mapping has one or more conditions, all of which must"
            + " hold.",
        Shape.either(
            Shape.types("string", "number", "boolean", "null"),
            Shape.definition("valueCondition")));
    definitions.set(
        "valueCondition",
        shareable("Conditions on a value.", ValueKeys.ALL).put("minProperties", 1));
    define(
        definitions,
        "body",
        "The body as a whole; a plain string is exactly that text.",
        Shape.either(Shape.TEXT, Shape.definition("bodyCondition")));
    definitions.set("bodyCondition", shareable("Conditions on a body.", BodyKeys.ALL));
    define(
        definitions,
        "content",
        "What the content of a part must be; a plain string is exactly that text.",
        Shape.either(Shape.TEXT, Shape.mapping(ConditionKeys.CONTENT)));
    define(
        definitions,
        "answer",
        "A response; a status alone; or the name of a fault.",
        StubFileSchema::answer);
    definitions.set(
        "response",
        shareable(
            "A response with at most one kind of content, its delivery and timing; or a fault.",
            AnswerKeys.ALL));
    definitions.set("duration", Shape.duration());
    return schema;
  }

  private static ObjectNode stub() {
    ObjectNode stub = shareable("A request pattern and its answers.", StubKeys.ALL);
    stub.putArray("required").add("request");
    for (String one : List.of("answer", "answers")) {
      stub.withArray("oneOf").addObject().putArray("required").add(one);
    }
    return stub;
  }

  private static ObjectNode answer() {
    ObjectNode answer = StubNodes.object();
    answer
        .putArray("anyOf")
        .add(Shape.STATUS.schema())
        .add(Shape.choice(FaultNames.plain()).schema())
        .add(Shape.definition("response").schema());
    return answer;
  }

  private static void define(ObjectNode definitions, String name, String help, Shape shape) {
    definitions.set(name, Key.of(name, help, shape).schema());
  }

  /** A mapping that may have shared parts. */
  private static ObjectNode shareable(String help, Keys<?> keys) {
    ObjectNode schema = Key.of("", help, Shape.mapping(keys)).schema();
    schema
        .putObject("patternProperties")
        .putObject("^\\$ref$")
        .put("description", "A shared part: \"#/shared/name\". Members beside it are added to it.")
        .put("type", "string")
        .put("pattern", "^#/shared/");
    return schema;
  }
}
