package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.match.Difference;
import dev.harrel.jsonschema.Error;
import dev.harrel.jsonschema.Validator;
import dev.harrel.jsonschema.ValidatorFactory;
import dev.harrel.jsonschema.providers.JacksonNode;
import java.net.URI;
import java.util.List;
import java.util.Optional;

/** A JSON Schema, in the dialect that it names, by default 2020-12. */
public final class JsonSchemas {

  private final Validator validator;
  private final URI schema;

  /**
   * A schema.
   *
   * @throws IllegalArgumentException if it is no JSON Schema; the message says where
   */
  public JsonSchemas(JsonNode schema) {
    this.validator =
        new ValidatorFactory().withJsonNodeFactory(new JacksonNode.Factory()).createValidator();
    try {
      this.schema = validator.registerSchema(schema);
    } catch (RuntimeException invalid) {
      throw new IllegalArgumentException(
          "jsonSchema(text) was given no JSON Schema: " + invalid.getMessage(), invalid);
    }
  }

  /** What in the value does not fit the schema; empty if it fits. */
  public List<Difference> differences(JsonNode value) {
    Validator.Result result = validator.validate(schema, value);
    return result.isValid()
        ? List.of()
        : result.getErrors().stream().map(error -> difference(error, value)).toList();
  }

  private static Difference difference(Error error, JsonNode value) {
    JsonNode actual = value.at(error.getInstanceLocation());
    String text = actual.toString();
    String path = JsonQuery.parse(error.getInstanceLocation()).find(value).get(0).path();
    return new Difference(
        path,
        error.getError() + "  (schema " + error.getSchemaLocation() + ")",
        text.length() > 80 ? text.substring(0, 80) + "..." : text,
        Optional.empty());
  }
}
