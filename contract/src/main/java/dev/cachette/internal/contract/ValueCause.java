// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonSchemas.Violation;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.text.TextDifference;
import dev.cachette.result.Cause;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Why a value is not what a consumer needs. */
final class ValueCause {

  /** Other notations of dates and instants. */
  private static final Map<String, Pattern> DATES = new LinkedHashMap<>();

  static {
    DATES.put("a date, year first", Pattern.compile("\\d{4}-\\d\\d-\\d\\d"));
    DATES.put(
        "a date and time",
        Pattern.compile("\\d{4}-\\d\\d-\\d\\d[T ]\\d\\d:\\d\\d(:\\d\\d)?(\\.\\d+)?"));
    DATES.put(
        "a date and time with an offset",
        Pattern.compile(
            "\\d{4}-\\d\\d-\\d\\d[T ]\\d\\d:\\d\\d(:\\d\\d)?(\\.\\d+)?(Z|[-+]\\d\\d:?\\d\\d)"));
    DATES.put("a date, day first", Pattern.compile("\\d{1,2}\\.\\d{1,2}\\.\\d{2,4}"));
    DATES.put("a date with slashes", Pattern.compile("\\d{1,4}/\\d{1,2}/\\d{1,4}"));
    DATES.put("a date without separators", Pattern.compile("(19|20)\\d{6}"));
    DATES.put("seconds or milliseconds since 1970", Pattern.compile("\\d{10}|\\d{13}"));
  }

  private ValueCause() {}

  static Optional<Cause> of(Violation violation, Optional<JsonNode> sample) {
    JsonNode actual = violation.at().node();
    return switch (violation.keyword()) {
      case "type" -> ofType(violation.required().toString(), actual, sample);
      case "enum" -> ofEnum(violation.required(), actual);
      case "const" -> ofConstant(violation.required(), actual);
      case "format", "pattern" -> ofText(actual, sample);
      case "minItems", "maxItems", "minLength", "minProperties", "contains" -> Optional.empty();
      // Of a shape that a person has written, the validator knows more.
      default -> violation.difference().cause();
    };
  }

  private static Optional<Cause> ofType(String types, JsonNode actual, Optional<JsonNode> sample) {
    if (actual.isNull()) {
      return Optional.of(Cause.certain("null, where the consumer needs a value"));
    }
    boolean number = types.contains("number") || types.contains("integer");
    if (number && actual.isTextual() && isNumber(actual.textValue())) {
      return Optional.of(Cause.certain("a number as a string"));
    }
    if (number && actual.isNumber()) {
      return Optional.of(
          Cause.certain("a number with a fraction, where the consumer needs an integer"));
    }
    if (types.contains("boolean") && actual.asText().matches("true|false|0|1")) {
      return Optional.of(
          Cause.certain("a boolean as " + (actual.isTextual() ? "a string" : "a number")));
    }
    if (types.contains("array") && actual.isObject()) {
      return BodyFindings.likely("one element without an array around it");
    }
    if (types.contains("object") && actual.isArray()) {
      return Optional.of(Cause.certain("an array, where the consumer needs one object"));
    }
    if (types.contains("string") && actual.isNumber()) {
      return sample.filter(it -> dates(it).isPresent()).isPresent()
          ? BodyFindings.likely("a date or time as a number")
          : Optional.of(Cause.certain("a number, where the consumer needs a string"));
    }
    return types.contains("string") && actual.isContainerNode()
        ? Optional.of(
            Cause.certain(
                (actual.isArray() ? "an array" : "an object")
                    + ", where the consumer needs a string"))
        : Optional.empty();
  }

  private static Optional<Cause> ofEnum(JsonNode allowed, JsonNode actual) {
    List<String> names = new ArrayList<>();
    allowed.forEach(it -> names.add(it.asText()));
    Optional<String> near = NameSuggester.closest(actual.asText(), names);
    return near.isPresent() && near.get().equalsIgnoreCase(actual.asText())
        ? Optional.of(Cause.certain("differs in letter case only"))
        : Optional.of(Cause.certain("an additional value, which the consumer does not know"));
  }

  private static Optional<Cause> ofConstant(JsonNode wanted, JsonNode actual) {
    return wanted.isValueNode() && actual.isValueNode()
        ? TextDifference.cause(wanted.asText(), actual.asText())
        : Optional.empty();
  }

  private static Optional<Cause> ofText(JsonNode actual, Optional<JsonNode> sample) {
    Optional<String> wanted = sample.flatMap(ValueCause::dates);
    Optional<String> found = dates(actual);
    return wanted.isPresent() && found.isPresent() && !wanted.equals(found)
        ? BodyFindings.likely("another format: " + found.get() + ", not " + wanted.get())
        : Optional.empty();
  }

  private static Optional<String> dates(JsonNode value) {
    return DATES.entrySet().stream()
        .filter(it -> it.getValue().matcher(value.asText()).matches())
        .map(Map.Entry::getKey)
        .findFirst();
  }

  private static boolean isNumber(String text) {
    try {
      return new BigDecimal(text.strip()).signum() >= -1;
    } catch (NumberFormatException none) {
      return false;
    }
  }
}
