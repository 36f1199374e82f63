// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Bodies;
import dev.cachette.match.BodyCondition;
import dev.cachette.match.Condition;
import dev.cachette.match.JsonBody;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** Reads conditions on whole bodies. */
final class BodyReader {

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
    Fields fields = Fields.of(node, "condition on a body", BodyKeys.ALL, problems);
    List<BodyCondition> all = new ArrayList<>();
    for (Node.Member member : fields.members()) {
      BodyKeys.Reading key = BodyKeys.ALL.reading(member.name());
      if (key != null) {
        problems
            .attempt(member.value(), () -> key.of(this, member.value(), fields))
            .flatMap(Function.identity())
            .ifPresent(all::add);
      }
    }
    boolean json = fields.has("sameJson") || fields.has("containsJson");
    if (!json && (fields.has(BodyKeys.IGNORING) || fields.has(BodyKeys.ANY_ORDER))) {
      problems.add(
          node, "\"ignoring\" and \"anyOrder\" need sameJson or containsJson next to them.");
    }
    return all;
  }

  /** Reads a condition on the text of a body. */
  Optional<BodyCondition> text(Node node) {
    return values.read(node).map(Bodies::textBody);
  }

  /** Returns a comparison with what the keys next to it say of it. */
  static JsonBody json(JsonBody body, Fields fields) {
    JsonBody all = body.ignoring(fields.texts(BodyKeys.IGNORING).toArray(String[]::new));
    return fields.isSet(BodyKeys.ANY_ORDER) ? all.anyOrder() : all;
  }

  /** Reads conditions on the content of a part: on its body, or on a place in it. */
  List<BodyCondition> content(Node node, ConditionReader conditions) {
    if (node.isText()) {
      return conditions(node);
    }
    List<BodyCondition> all = new ArrayList<>();
    Fields fields =
        Fields.of(node, "condition on the content of a part", ConditionKeys.CONTENT, problems);
    for (Condition each : conditions.in(fields)) {
      all.add((BodyCondition) each);
    }
    return all;
  }
}
