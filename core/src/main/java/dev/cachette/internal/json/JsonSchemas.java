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

  private static final int LONGEST = 80;

  private final JsonNode text;
  private final Validator validator;
  private final URI schema;

  /**
   * A schema.
   *
   * @throws IllegalArgumentException if it is no JSON Schema; the message says where
   */
  public JsonSchemas(JsonNode schema) {
    this.text = schema;
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
        : result.getErrors().stream().map(error -> difference(error, value)).distinct().toList();
  }

  private Difference difference(Error error, JsonNode value) {
    String path = JsonQuery.parse(error.getInstanceLocation()).find(value).get(0).path();
    return new Difference(
        path,
        asked(error),
        cut(value.at(error.getInstanceLocation()).toString()),
        Optional.of(error.getError()));
  }

  /** The keyword with its value: {@code minimum 1}; it alone where the schema refers elsewhere. */
  private String asked(Error error) {
    String location = error.getSchemaLocation();
    String pointer = location.substring(location.indexOf('#') + 1);
    JsonNode keyword =
        pointer.isEmpty() || pointer.startsWith("/")
            ? text.at(pointer).path(error.getKeyword())
            : text.path(error.getKeyword());
    return cut((error.getKeyword() + " " + (keyword.isMissingNode() ? "" : keyword)).strip());
  }

  private static String cut(String text) {
    return text.length() > LONGEST ? text.substring(0, LONGEST) + "..." : text;
  }
}
