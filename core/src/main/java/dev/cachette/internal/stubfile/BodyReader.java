// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Bodies;
import dev.cachette.match.BodyCondition;
import dev.cachette.match.Condition;
import dev.cachette.match.JsonBody;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** Reads conditions on whole bodies. */
final class BodyReader {

  private static final String IGNORING = "ignoring";
  private static final String ANY_ORDER = "anyOrder";

  /** Keys of a body condition. */
  static final Set<String> KEYS =
      Set.of(
          "sameJson",
          "containsJson",
          IGNORING,
          ANY_ORDER,
          "jsonSchema",
          "sameXml",
          "sameText",
          "sameBytes",
          "text");

  private final Problems problems;
  private final ValueReader values;

  BodyReader(Problems problems, ValueReader values) {
    this.problems = problems;
    this.values = values;
  }

  /** Reads all conditions on a body; a plain string is exactly that text. */
  List<Condition> read(Node node) {
    return List.copyOf(conditions(node));
  }

  private List<BodyCondition> conditions(Node node) {
    if (node.isText()) {
      return List.of(Bodies.sameText(node.text()));
    }
    Fields fields = Fields.of(node, "condition on a body", KEYS, problems);
    List<BodyCondition> all = new ArrayList<>();
    for (Node.Member member : fields.members()) {
      problems
          .attempt(member.value(), () -> condition(member.name(), member.value(), fields))
          .flatMap(Function.identity())
          .ifPresent(all::add);
    }
    boolean json = fields.has("sameJson") || fields.has("containsJson");
    if (!json && (fields.has(IGNORING) || fields.has(ANY_ORDER))) {
      problems.add(
          node, "\"ignoring\" and \"anyOrder\" need sameJson or containsJson next to them.");
    }
    return all;
  }

  private Optional<BodyCondition> condition(String name, Node node, Fields fields) {
    return switch (name) {
      case "sameJson" -> Optional.of(json(Bodies.sameJson(node.json()), fields));
      case "containsJson" -> Optional.of(json(Bodies.containsJson(node.json()), fields));
      case "jsonSchema" -> Optional.of(Bodies.jsonSchema(node.json().toString()));
      case "sameXml" -> Optional.of(Bodies.sameXml(node.text()));
      case "sameText" -> Optional.of(Bodies.sameText(node.text()));
      case "sameBytes" ->
          Optional.of(Bodies.sameBytes(Base64.getMimeDecoder().decode(node.text())));
      case "text" -> values.read(node).map(Bodies::textBody);
      default -> Optional.empty();
    };
  }

  private static JsonBody json(JsonBody body, Fields fields) {
    JsonBody all = body.ignoring(fields.texts(IGNORING).toArray(String[]::new));
    return fields.isSet(ANY_ORDER) ? all.anyOrder() : all;
  }

  /** Reads conditions on the content of a part: on its body, or on a place in it. */
  List<BodyCondition> content(Node node, ConditionReader conditions) {
    if (node.isText()) {
      return conditions(node);
    }
    List<BodyCondition> all = new ArrayList<>();
    Fields fields =
        Fields.of(
            node,
            "condition on the content of a part",
            Set.of("body", "json", "form", "xpath", "namespaces"),
            problems);
    for (Condition each : conditions.in(fields)) {
      all.add((BodyCondition) each);
    }
    return all;
  }
}
