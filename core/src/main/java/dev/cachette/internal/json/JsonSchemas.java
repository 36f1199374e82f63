// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Difference;
import dev.harrel.jsonschema.Error;
import dev.harrel.jsonschema.EvaluatorFactory;
import dev.harrel.jsonschema.InvalidSchemaException;
import dev.harrel.jsonschema.Validator;
import dev.harrel.jsonschema.ValidatorFactory;
import dev.harrel.jsonschema.providers.JacksonNode;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** A JSON Schema, in the dialect that it names, by default 2020-12. */
public final class JsonSchemas {

  private static final int LONGEST = 80;
  private static final int MOST_MISTAKES = 3;

  /** Keywords that their value and the actual value explain. */
  private static final Set<String> TELL_ALL =
      Set.of(
          SchemaErrors.FORBIDDEN,
          "type",
          "enum",
          "const",
          "minimum",
          "maximum",
          "exclusiveMinimum",
          "exclusiveMaximum",
          "multipleOf",
          "minLength",
          "maxLength",
          "pattern");

  private static final String INVALID = "this is not a valid JSON Schema: ";
  private static final Pattern ALLOWED = Pattern.compile("Expected any of \\[\\[(.*)]]");

  private final JsonNode text;
  private final Validator validator;
  private final URI schema;
  private final UnaryOperator<String> place;

  /**
   * Compiles a schema.
   *
   * @throws IllegalArgumentException if it is not a valid JSON Schema; the message gives the place
   */
  public JsonSchemas(JsonNode schema) {
    this(schema, (context, keyword, value) -> Optional.empty(), pointer -> "");
  }

  /**
   * Compiles a schema with custom keywords.
   *
   * @param more the keywords
   * @param place returns where a keyword was declared, by its JSON Pointer
   * @throws IllegalArgumentException if it is not a valid JSON Schema; the message gives the place
   */
  public JsonSchemas(JsonNode schema, EvaluatorFactory more, UnaryOperator<String> place) {
    this(schema, more, place, MetaSchema.allows(schema));
  }

  private JsonSchemas(
      JsonNode schema, EvaluatorFactory more, UnaryOperator<String> place, boolean isValid) {
    this.text = schema;
    this.place = place;
    this.validator =
        new ValidatorFactory()
            .withJsonNodeFactory(new JacksonNode.Factory())
            .withEvaluatorFactory(PatternKeyword.and(more))
            // Of an invalid one, the validator says what is wrong.
            .withDisabledSchemaValidation(isValid)
            .createValidator();
    SchemaLoops.in(schema)
        .ifPresent(
            pointer -> {
              throw Refusals.argument(
                  INVALID + mistake(pointer, "it refers to itself, without an end"));
            });
    try {
      this.schema = validator.registerSchema(schema);
    } catch (InvalidSchemaException invalid) {
      throw Refusals.argument(INVALID + mistakes(invalid), invalid);
    } catch (RuntimeException invalid) {
      throw Refusals.argument(INVALID + invalid.getMessage(), invalid);
    }
  }

  /**
   * Compiles a schema that was compiled before, so that it is known to be valid.
   *
   * @param more the keywords
   */
  public static JsonSchemas ofValid(JsonNode schema, EvaluatorFactory more) {
    return new JsonSchemas(schema, more, pointer -> "", true);
  }

  /** Returns what is wrong in a schema, by its place; errors of wider places only repeat that. */
  private String mistakes(InvalidSchemaException invalid) {
    List<Error> errors =
        SchemaErrors.telling(invalid.getErrors(), error -> MissingNode.getInstance());
    return errors.stream()
        .map(error -> mistake(error.getInstanceLocation(), plain(error.getError())))
        .distinct()
        .limit(MOST_MISTAKES)
        .collect(Collectors.joining("; "));
  }

  /** Returns a mistake at its place: where it was declared, or else its JSON Pointer. */
  private String mistake(String pointer, String text) {
    String declared = place.apply(pointer).strip();
    if (declared.isEmpty()) {
      return (pointer.isEmpty() ? "" : "at " + pointer + ": ") + text;
    }
    String keyword = pointer.substring(pointer.lastIndexOf('/') + 1);
    return (keyword.matches("\\d*") ? "" : keyword + ": ") + text + " " + declared;
  }

  private static String plain(String text) {
    // That of a regular expression has three.
    String firstLine = text.lines().findFirst().orElse("");
    return ALLOWED.matcher(firstLine).replaceFirst("expected one of $1");
  }

  /**
   * A violation of the schema.
   *
   * @param keyword the violated keyword
   * @param required its value; missing if the schema is a reference
   * @param at the value that violates it, and its place
   * @param difference the same for people, with secrets masked
   */
  public record Violation(String keyword, JsonNode required, Located at, Difference difference) {}

  /** Returns the violations of the schema for people; empty if the value is valid. */
  public List<Difference> differences(JsonNode value) {
    return violations(value).stream().map(Violation::difference).distinct().toList();
  }

  /** Returns the violations of the schema; empty if the value is valid. */
  public List<Violation> violations(JsonNode value) {
    Validator.Result result = validator.validate(schema, value);
    return result.isValid()
        ? List.of()
        : SchemaErrors.telling(result.getErrors(), this::keyword).stream()
            .map(error -> violation(error, value))
            .toList();
  }

  private Violation violation(Error error, JsonNode value) {
    JsonNode actual = value.at(error.getInstanceLocation());
    String path = JsonQuery.parse(error.getInstanceLocation()).find(value).get(0).path();
    Located at = new Located(path, actual);
    return new Violation(
        SchemaErrors.keywordOf(error), keyword(error), at, difference(error, at).at(path));
  }

  private Difference difference(Error error, Located at) {
    if (SchemaErrors.keywordOf(error).equals("required")) {
      return missing(error, at.node());
    }
    String shown = shown(at);
    Difference difference = Difference.of(asked(error), cut(shown));
    boolean tellsMore = !TELL_ALL.contains(SchemaErrors.keywordOf(error));
    // The text of the validator quotes the value, too.
    boolean isMasked = !shown.equals(at.node().toString());
    return tellsMore && !isMasked ? difference.because(Optional.of(error.getError())) : difference;
  }

  /** Returns a value as JSON, with secrets masked. */
  private static String shown(Located at) {
    JsonNode actual = at.node();
    if (actual.isContainerNode()) {
      return Masking.text(actual.toString());
    }
    return Masking.value(at.name(), actual.asText()).equals(actual.asText())
        ? actual.toString()
        : Masking.MASK;
  }

  /** Returns the missing members, and a similar one that may be misspelled. */
  private Difference missing(Error error, JsonNode actual) {
    List<String> names = new ArrayList<>();
    keyword(error).forEach(name -> names.add(name.asText()));
    names.removeIf(actual::has);
    List<String> there = new ArrayList<>();
    actual.fieldNames().forEachRemaining(there::add);
    Optional<String> cause =
        names.stream()
            .flatMap(name -> NameSuggester.hint("a member", name, there).stream())
            .findFirst();
    String wanted = "\"" + String.join("\", \"", names) + "\"";
    return Difference.of("required " + wanted + placed(error), Difference.MISSING).because(cause);
  }

  /**
   * Returns the keyword with its value: {@code minimum 1}; only the keyword if the schema is a
   * reference.
   */
  private String asked(Error error) {
    if (SchemaErrors.isForbidden(error)) {
      return "no such member" + place.apply(pointer(error));
    }
    JsonNode keyword = keyword(error);
    String asked = SchemaErrors.keywordOf(error) + " " + (keyword.isMissingNode() ? "" : keyword);
    return cut(asked.strip()) + placed(error);
  }

  private String placed(Error error) {
    return place.apply(pointer(error) + "/" + SchemaErrors.keywordOf(error));
  }

  private static String pointer(Error error) {
    String location = error.getSchemaLocation();
    return location.substring(location.indexOf('#') + 1);
  }

  /** Returns the value of the keyword; missing if the schema is a reference. */
  private JsonNode keyword(Error error) {
    String pointer = pointer(error);
    return pointer.isEmpty() || pointer.startsWith("/")
        ? text.at(pointer).path(SchemaErrors.keywordOf(error))
        : text.path(SchemaErrors.keywordOf(error));
  }

  private static String cut(String text) {
    return text.length() > LONGEST ? text.substring(0, LONGEST) + "..." : text;
  }
}
