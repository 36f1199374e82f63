package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.internal.model.FailFirst;
import dev.cachette.internal.model.Flaky;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.RateLimit;
import dev.cachette.internal.model.StubCheck;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.stub.DraftStub;
import dev.cachette.internal.yaml.Node;
import dev.cachette.match.Condition;
import dev.cachette.match.RequestPattern;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;

/** Reads one stub: its requests, answers, and when it is active. */
final class StubReader {

  private static final Set<String> BEHAVIOUR =
      Set.of(
          "looping",
          "onceEach",
          "times",
          "onCall",
          "after",
          "from",
          "until",
          "rateLimit",
          "failFirst",
          "flaky",
          "unchecked",
          "overriding",
          "saveBodyTo");

  /** Keys of a stub. */
  static final Set<String> KEYS = new HashSet<>();

  static {
    KEYS.addAll(Set.of("name", "request", "where", "check", "answer", "answers"));
    KEYS.addAll(ConditionReader.KEYS);
    KEYS.addAll(BEHAVIOUR);
  }

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
    Fields fields = Fields.of(node, "key of a stub", KEYS, problems);
    Optional<RequestPattern> pattern = pattern(fields);
    List<Answer> given = answers(fields);
    List<StubCheck> checks = new ArrayList<>();
    for (Node each : fields.list("check")) {
      conditions.read(each).map(StubCheck::of).ifPresent(checks::add);
    }
    // Most stubs have none of these; with thousands of stubs, a dozen look-ups each matter.
    List<UnaryOperator<StubSpec>> changes = fields.hasAny(BEHAVIOUR) ? changes(fields) : List.of();
    if (pattern.isEmpty() || given.isEmpty()) {
      return Optional.empty();
    }
    DraftStub draft = new DraftStub(pattern.get(), place(node));
    fields.text("name").ifPresent(draft::rename);
    checks.forEach(draft::check);
    fields
        .get("saveBodyTo")
        .flatMap(at -> problems.attempt(at, () -> surroundings.writable(at.text())))
        .ifPresent(draft::keepBodyIn);
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

  private List<Answer> answers(Fields fields) {
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
    return answers(nodes);
  }

  private List<Answer> answers(List<Node> nodes) {
    List<Answer> read = new ArrayList<>(nodes.size());
    for (Node each : nodes) {
      answers.read(each).ifPresent(read::add);
    }
    return read;
  }

  private List<UnaryOperator<StubSpec>> changes(Fields fields) {
    List<UnaryOperator<StubSpec>> changes = new ArrayList<>();
    if (fields.isSet("looping")) {
      changes.add(StubSpec::looping);
    }
    if (fields.isSet("overriding")) {
      changes.add(it -> it.with(StubSpec.Trait.OVERRIDING));
    }
    if (fields.isSet("unchecked")) {
      changes.add(it -> it.with(StubSpec.Trait.UNCHECKED));
    }
    if (fields.isSet("onceEach")) {
      changes.add(StubSpec::onceEach);
    }
    fields.positive("times").ifPresent(calls -> changes.add(it -> it.times(calls)));
    fields
        .positive("failFirst")
        .ifPresent(calls -> changes.add(it -> it.with(new FailFirst(calls))));
    instant(fields, "from").ifPresent(at -> changes.add(it -> it.activeFrom(at)));
    instant(fields, "until").ifPresent(at -> changes.add(it -> it.activeUntil(at)));
    onCall(fields, changes);
    rateLimit(fields).ifPresent(limit -> changes.add(it -> it.with(limit)));
    flaky(fields).ifPresent(flaky -> changes.add(it -> it.with(flaky)));
    return changes;
  }

  private Optional<Instant> instant(Fields fields, String name) {
    return fields
        .get(name)
        .flatMap(at -> problems.attempt(at, () -> ValueReader.instant(at.text())));
  }

  private void onCall(Fields fields, List<UnaryOperator<StubSpec>> changes) {
    fields
        .members("onCall")
        .forEach(
            member -> {
              if (!member.name().matches("[1-9]\\d{0,8}")) {
                problems.add(
                    member.key(),
                    "the number of a call is 1 or more, not \"" + member.name() + "\".");
                return;
              }
              int number = Integer.parseInt(member.name());
              answers
                  .read(member.value())
                  .ifPresent(answer -> changes.add(it -> it.onCall(number, answer)));
            });
  }

  private Optional<RateLimit> rateLimit(Fields fields) {
    Optional<Node> node = fields.get("rateLimit");
    if (node.isEmpty()) {
      return Optional.empty();
    }
    Fields rateLimit =
        Fields.of(node.get(), "key of rateLimit", Set.of("calls", "window"), problems);
    Optional<Integer> calls = rateLimit.positive("calls");
    Optional<Duration> window = rateLimit.duration("window").filter(it -> !it.isZero());
    if (calls.isEmpty() || window.isEmpty()) {
      problems.add(node.get(), "rateLimit needs both keys: { calls: 10, window: 1m }.");
      return Optional.empty();
    }
    return Optional.of(new RateLimit(calls.get(), window.get()));
  }

  private Optional<Flaky> flaky(Fields fields) {
    Optional<Node> node = fields.get("flaky");
    if (node.isEmpty()) {
      return Optional.empty();
    }
    Fields flaky =
        Fields.of(node.get(), "key of flaky", Set.of("probability", "failures"), problems);
    Optional<Double> probability = flaky.fraction("probability").filter(it -> it >= 0 && it <= 1);
    if (probability.isEmpty()) {
      problems.add(
          node.get(),
          "flaky needs a probability from 0 to 1: { probability: 0.2, failures: [503] }.");
      return Optional.empty();
    }
    List<Answer> failures = answers(flaky.list("failures"));
    List<Answer> all = failures.isEmpty() ? List.of(Answers.status(503)) : failures;
    return Optional.of(new Flaky(probability.get(), all));
  }
}
