// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.fields;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import java.util.Collection;
import java.util.List;

/** The form of a value in a file, as JSON Schema 2020-12, without a description. */
@FunctionalInterface
public interface Shape {

  Shape ANY = StubNodes::object;
  Shape TEXT = type("string");
  Shape FLAG = type("boolean");
  Shape NUMBER = type("number");
  Shape INTEGER = type("integer");
  Shape OBJECT = type("object");
  Shape POSITIVE = () -> INTEGER.schema().put("minimum", 1);
  Shape STATUS = () -> INTEGER.schema().put("minimum", 200).put("maximum", 599);

  /** A string, or what YAML takes for a number or a boolean if it has no quotes. */
  Shape SCALAR = types("string", "number", "boolean");

  /** Needs the definition {@link #duration()} in its schema. */
  Shape DURATION = definition("duration");

  /** Returns the schema: a new one, which the caller may add to. */
  ObjectNode schema();

  private static Shape type(String type) {
    return () -> StubNodes.member("type", StubNodes.text(type));
  }

  static Shape types(String... types) {
    return () -> StubNodes.member("type", StubNodes.texts(List.of(types)));
  }

  /** Returns the form of a definition of the schema. */
  static Shape definition(String name) {
    return () -> StubNodes.member("$ref", StubNodes.text("#/$defs/" + name));
  }

  /** Returns the definition of durations. */
  static ObjectNode duration() {
    ObjectNode schema =
        StubNodes.member(
            "description", StubNodes.text("200ms, 1.5s, 10m, 2h, 30d, or ISO 8601: PT1M30S."));
    return schema
        .put("type", "string")
        .put("pattern", "^(\\d{1,9}(\\.\\d{1,9})? ?(ms|s|m|h|d)|P.*)$");
  }

  /** Returns the form of one of these strings. */
  static Shape choice(Collection<String> allowed) {
    return () -> StubNodes.member("enum", StubNodes.texts(allowed));
  }

  /** Returns the form of what has one of two forms. */
  static Shape either(Shape one, Shape other) {
    return () -> {
      ObjectNode schema = StubNodes.object();
      schema.putArray("anyOf").add(one.schema()).add(other.schema());
      return schema;
    };
  }

  /** Returns the form of a sequence. */
  static Shape sequence(Shape each) {
    return () -> {
      ObjectNode schema = StubNodes.member("type", StubNodes.text("array"));
      schema.set("items", each.schema());
      return schema;
    };
  }

  /** One, or a sequence of them. */
  static Shape list(Shape each) {
    return either(each, sequence(each));
  }

  /** A mapping from any names. */
  static Shape members(Shape each) {
    return () -> {
      ObjectNode schema = OBJECT.schema();
      schema.set("additionalProperties", each.schema());
      return schema;
    };
  }

  /** A mapping with these keys and no others. */
  static Shape mapping(Keys<?> keys, String... required) {
    return () -> {
      ObjectNode schema = OBJECT.schema();
      schema.set("properties", keys.schemas());
      schema.put("additionalProperties", false);
      if (required.length > 0) {
        schema.set("required", StubNodes.texts(List.of(required)));
      }
      return schema;
    };
  }
}
