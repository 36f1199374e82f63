// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.json.JsonSchemas.Violation;
import dev.cachette.internal.json.SchemaText;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.jsonpath.Located;
import dev.cachette.internal.openapi.Formats;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Cause;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Finds where a JSON body lacks the shape that a clause needs, and the likely cause. */
final class BodyFindings {

  private static final int LONGEST = 60;

  private final JsonNode example;

  private BodyFindings(JsonNode example) {
    this.example = example;
  }

  /**
   * Returns the differences.
   *
   * @param schema what the clause needs
   * @param example a body that meets it
   */
  static List<Difference> of(JsonNode schema, JsonNode example, JsonNode actual) {
    BodyFindings findings = new BodyFindings(example);
    List<Difference> all = new ArrayList<>();
    for (Violation violation : JsonSchemas.ofValid(schema, new Formats()).violations(actual)) {
      if (violation.keyword().equals("required")) {
        all.addAll(findings.missing(schema, violation));
      } else {
        all.add(findings.other(schema, violation));
      }
    }
    return all.stream().distinct().toList();
  }

  private List<Difference> missing(JsonNode schema, Violation violation) {
    JsonNode parent = violation.at().node();
    JsonNode within = SchemaLookup.at(schema, violation.at().path(), parent);
    List<Difference> all = new ArrayList<>();
    for (JsonNode name : violation.required()) {
      if (!parent.has(name.asText())) {
        Located place = violation.at().member(name.asText());
        JsonNode wanted = within.path("properties").path(name.asText());
        all.add(
            Difference.of(expected(wanted, place.path()), Difference.MISSING)
                .at(place.path())
                .of(Difference.Kind.MISSING)
                .with(MemberCause.of(name.asText(), wanted, parent, within)));
      }
    }
    return all;
  }

  private Difference other(JsonNode schema, Violation violation) {
    JsonNode actual = violation.at().node();
    JsonNode wanted = SchemaLookup.at(schema, violation.at().path(), actual);
    Optional<JsonNode> sample = SchemaLookup.sample(example, violation.at().path());
    String expected =
        switch (violation.keyword()) {
          case "type", "enum", "const", "format", "pattern" ->
              expected(
                  wanted.isMissingNode() || wanted.isEmpty() ? one(violation) : wanted,
                  violation.at().path());
          case "minItems" -> "at least " + SchemaText.elements(violation.required().asInt());
          case "maxItems" -> "at most " + SchemaText.elements(violation.required().asInt());
          case "minLength" -> "a string that is not empty";
          default -> violation.difference().expected();
        };
    return Difference.of(expected, shown(violation.at()))
        .at(violation.at().path())
        .of(kind(violation))
        .with(ValueCause.of(violation, sample));
  }

  private static JsonNode one(Violation violation) {
    return StubNodes.member(violation.keyword(), violation.required());
  }

  private static Difference.Kind kind(Violation violation) {
    return violation.keyword().equals("type") ? Difference.Kind.TYPE : Difference.Kind.VALUE;
  }

  /** Returns what is needed, with the value of the example. */
  private String expected(JsonNode schema, String path) {
    String words = SchemaText.of(schema);
    return SchemaLookup.sample(example, path)
        .filter(JsonNode::isValueNode)
        .filter(value -> !value.isNull() && !schema.has("const") && !schema.has("enum"))
        .map(value -> words + ", such as " + shown(new Located(path, value)))
        .orElse(words);
  }

  /** Returns a value as JSON, with secrets masked. */
  private static String shown(Located at) {
    JsonNode value = at.node();
    if (value.isEmpty() && value.isContainerNode()) {
      return value.isArray() ? "[], an empty array" : "{}, an empty object";
    }
    String text =
        value.isContainerNode()
            ? Masking.body(Optional.of("application/json"), value.toString())
            : Masking.value(at.name(), value.asText()).equals(value.asText())
                ? value.toString()
                : '"' + Masking.MASK + '"';
    return text.length() > LONGEST ? text.substring(0, LONGEST) + "..." : text;
  }

  /** Returns a likely cause. */
  static Optional<Cause> likely(String text) {
    return Optional.of(Cause.likely(text));
  }
}
