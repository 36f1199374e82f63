// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubCheck;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Condition;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Reads one stub: its requests, answers, and when it is active. */
final class StubReader {

  private final Problems problems;
  private final StubFileResolver surroundings;
  private final ConditionReader conditions;
  private final AnswerReader answers;

  StubReader(Problems problems, StubFileResolver surroundings) {
    this.problems = problems;
    this.surroundings = surroundings;
    this.conditions = new ConditionReader(problems);
    this.answers = new AnswerReader(problems, surroundings);
  }

  /** Reads a stub; empty if it has problems. */
  Optional<StubDeclaration> read(Node node) {
    Fields fields = Fields.of(node, "key of a stub", StubKeys.ALL, problems);
    StubFields stub = new StubFields(fields, problems, answers, surroundings);
    Optional<RequestPattern> pattern = pattern(fields);
    List<Answer> given = answers(stub);
    List<StubCheck> checks = new ArrayList<>();
    for (Node each : fields.list("check")) {
      conditions.read(each).map(StubCheck::of).ifPresent(checks::add);
    }
    List<UnaryOperator<StubSpec>> changes = StubKeys.read(stub);
    if (pattern.isEmpty() || given.isEmpty()) {
      return Optional.empty();
    }
    DraftStub draft = new DraftStub(pattern.get(), place(node));
    fields.text("name").ifPresent(draft::rename);
    checks.forEach(draft::check);
    return problems
        .attempt(node, () -> changed(draft.answeredBy(given), changes))
        .map(
            spec ->
                new StubDeclaration(
                    draft,
                    spec,
                    fields.texts("after"),
                    (name, known) ->
                        problems.unknown(
                            fields.get("after").orElse(node), name, "name of a stub", known)));
  }

  private static StubSpec changed(StubSpec plain, List<UnaryOperator<StubSpec>> changes) {
    StubSpec spec = plain;
    for (UnaryOperator<StubSpec> change : changes) {
      spec = change.apply(spec);
    }
    return spec;
  }

  private Place place(Node node) {
    return new Place(new StackTraceElement("a stub file", "", problems.file(), node.line()));
  }

  private Optional<RequestPattern> pattern(Fields fields) {
    Optional<Node> line = fields.get("request");
    if (line.isEmpty()) {
      problems.add(
          fields.node(),
          "a stub needs a request. Fix: request: GET https://tides.example/v1/tides");
    }
    Optional<RequestPattern> pattern =
        line.flatMap(at -> problems.attempt(at, () -> RequestPattern.of(at.text())));
    List<Condition> all = new ArrayList<>(conditions.in(fields));
    fields.list("where").forEach(each -> conditions.read(each).ifPresent(all::add));
    return pattern.flatMap(
        it -> problems.attempt(fields.node(), () -> it.where(all.toArray(Condition[]::new))));
  }

  private List<Answer> answers(StubFields stub) {
    Fields fields = stub.fields();
    List<Node> nodes = new ArrayList<>();
    fields.get("answer").ifPresent(nodes::add);
    nodes.addAll(fields.list("answers"));
    if (fields.has("answer") && fields.has("answers")) {
      problems.add(
          fields.node(),
          "a stub has \"answer\" or \"answers\", not both. Fix: use answers for all.");
    } else if (nodes.isEmpty()) {
      problems.add(fields.node(), "a stub needs an answer. Fix: answer: { status: 204 }.");
    }
    return stub.answers(nodes);
  }
}
