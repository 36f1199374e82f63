// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.model.AnswerOrder;
import dev.cachette.internal.model.Behavior;
import dev.cachette.internal.model.FailFirst;
import dev.cachette.internal.model.Flaky;
import dev.cachette.internal.model.RateLimit;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.yaml.Node;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/** The keys of a stub besides its request and its answers: when and how often it answers. */
final class StubKeys {

  private static final String NUMBER = "[1-9]\\d{0,8}";

  static final Keys<Void> RATE_LIMIT =
      Keys.of(
          Key.of("calls", "The number of calls.", Shape.POSITIVE),
          Key.of("window", "The window of time.", Shape.DURATION));

  static final Keys<Void> FLAKY =
      Keys.of(
          Key.of(
              "probability",
              "The probability that a call fails.",
              () -> Shape.NUMBER.schema().put("minimum", 0).put("maximum", 1)),
          Key.of(
              "failures",
              "The answers to calls that fail; 503 by default.",
              Shape.list(StubShapes.ANSWER)));

  /** The keys of a stub besides conditions and behaviors, in the order in which it is written. */
  static final Keys<Void> FRAME =
      Keys.of(
          Key.of("name", "The name of the stub in explanations.", Shape.SCALAR),
          Key.of(
              "request",
              "METHOD URL-template: GET https://tides.example/v1/stations/{station}/tides",
              Shape.TEXT),
          Key.of(
              "where", "Further conditions; all of them hold.", Shape.list(StubShapes.CONDITION)),
          Key.of(
              "check",
              "Requirements for each request that it answers; the test fails if one does not hold.",
              Shape.list(StubShapes.CONDITION)),
          Key.of(
              "answer",
              "The answer: a response, a status alone, or the name of a fault.",
              StubShapes.ANSWER),
          Key.of(
              "answers",
              "Several answers in turn; the last one stays.",
              Shape.list(StubShapes.ANSWER)),
          Key.of("after", "The names of stubs that must be called first.", Shape.list(Shape.TEXT)));

  /** When and how often a stub answers, in the order in which it is written. */
  static final Keys<StubPart> BEHAVIOR =
      Keys.of(
          StubPart.flag(
              "looping",
              "Starts again with the first answer after the last one.",
              StubSpec::looping,
              stub -> stub.order().then() == AnswerOrder.Then.FIRST_AGAIN),
          StubPart.flag(
              "onceEach",
              "Gives each answer once; then the stub is used up.",
              StubSpec::onceEach,
              stub -> stub.order().then() == AnswerOrder.Then.USED_UP),
          StubPart.flag(
              "overriding",
              "Wins over more specific stubs of the same scope.",
              stub -> stub.with(StubSpec.Trait.OVERRIDING),
              stub -> stub.has(StubSpec.Trait.OVERRIDING)),
          StubPart.flag(
              "unchecked",
              "Excludes requests and answers from checks against the API description.",
              stub -> stub.with(StubSpec.Trait.UNCHECKED),
              stub -> stub.has(StubSpec.Trait.UNCHECKED)),
          StubPart.positive(
              "times",
              "The maximum number of calls; then the stub is used up.",
              StubSpec::times,
              stub -> stub.order().limit()),
          StubPart.instant(
              "from",
              "It becomes active at this instant.",
              StubSpec::activeFrom,
              stub -> stub.period().from(),
              Instant.MIN),
          StubPart.instant(
              "until",
              "It expires at this instant.",
              StubSpec::activeUntil,
              stub -> stub.period().until(),
              Instant.MAX),
          StubPart.key(
              "saveBodyTo",
              "A file that request bodies are written to.",
              Shape.TEXT,
              stub ->
                  stub.attempt("saveBodyTo", at -> stub.surroundings().writable(at.text()))
                      .map(file -> it -> it.with(it.checks(), Optional.of(file))),
              stub -> stub.bodyFile().map(StubNodes::text)),
          StubPart.key(
              "onCall",
              "Answers to single calls, by their number from 1.",
              StubKeys::calls,
              StubKeys::readOnCall,
              StubKeys::writeOnCall),
          StubPart.key(
              "rateLimit",
              "The number of calls allowed per window of time; others get 429.",
              Shape.mapping(RATE_LIMIT, "calls", "window"),
              StubKeys::readRateLimit,
              StubKeys::writeRateLimit),
          StubPart.key(
              "failFirst",
              "Answers the first calls with 503.",
              Shape.POSITIVE,
              stub ->
                  stub.fields()
                      .positive("failFirst")
                      .map(calls -> it -> it.with(new FailFirst(calls))),
              stub ->
                  only(stub, FailFirst.class)
                      .map(it -> StubNodes.number(BigDecimal.valueOf(it.calls())))),
          StubPart.key(
              "flaky",
              "Fails at random.",
              Shape.mapping(FLAKY, "probability"),
              StubKeys::readFlaky,
              StubKeys::writeFlaky));

  /** All of them, with the conditions on the request. */
  static final Keys<Void> ALL =
      Keys.all(List.of(FRAME, ConditionKeys.ALL, BEHAVIOR, ContractKeys.OF_STUB));

  private static final List<Keys<StubPart>> PARTS = List.of(BEHAVIOR, ContractKeys.OF_STUB);

  private StubKeys() {}

  /** Returns what the keys of a stub change of it, in order. */
  static List<UnaryOperator<StubSpec>> read(StubFields stub) {
    List<UnaryOperator<StubSpec>> changes = new ArrayList<>();
    // Most stubs have none of these; with thousands of stubs, a dozen look-ups each matter.
    for (Keys<StubPart> keys : PARTS) {
      if (stub.fields().hasAny(keys.names())) {
        keys.all().forEach(key -> key.reading().reading().of(stub).ifPresent(changes::add));
      }
    }
    return changes;
  }

  /** Adds the keys that a stub needs. */
  static void write(StubSpec stub, ObjectNode form) throws Unwritable {
    for (Keys<StubPart> keys : PARTS) {
      for (Key<StubPart> key : keys.all()) {
        Optional<JsonNode> value = key.reading().writing().of(stub);
        if (value.isPresent()) {
          form.set(key.name(), value.get());
        }
      }
    }
  }

  private static ObjectNode calls() {
    ObjectNode schema = Shape.OBJECT.schema();
    schema.putObject("patternProperties").set("^[1-9][0-9]*$", StubShapes.ANSWER.schema());
    return schema.put("additionalProperties", false);
  }

  private static Optional<UnaryOperator<StubSpec>> readOnCall(StubFields stub) {
    Map<Integer, Answer> answers = new TreeMap<>();
    for (Node.Member member : stub.fields().members("onCall")) {
      if (member.name().matches(NUMBER)) {
        stub.answers()
            .read(member.value())
            .ifPresent(answer -> answers.put(Integer.valueOf(member.name()), answer));
      } else {
        stub.problems()
            .add(member.key(), "the number of a call is 1 or more, not \"" + member.name() + "\".");
      }
    }
    return Optional.of(
        spec -> {
          StubSpec changed = spec;
          for (Map.Entry<Integer, Answer> each : answers.entrySet()) {
            changed = changed.onCall(each.getKey(), each.getValue());
          }
          return changed;
        });
  }

  private static Optional<JsonNode> writeOnCall(StubSpec stub) throws Unwritable {
    ObjectNode calls = StubNodes.object();
    for (Map.Entry<Integer, Answer> each : new TreeMap<>(stub.order().onCall()).entrySet()) {
      calls.set(each.getKey().toString(), StubWriter.written(each.getValue()));
    }
    return calls.isEmpty() ? Optional.empty() : Optional.of(calls);
  }

  private static Optional<UnaryOperator<StubSpec>> readRateLimit(StubFields stub) {
    Optional<Node> node = stub.fields().get("rateLimit");
    if (node.isEmpty()) {
      return Optional.empty();
    }
    Fields fields = stub.within(node.get(), "key of rateLimit", RATE_LIMIT);
    Optional<Integer> calls = fields.positive("calls");
    Optional<Duration> window = fields.duration("window").filter(it -> !it.isZero());
    if (calls.isEmpty() || window.isEmpty()) {
      stub.problems().add(node.get(), "rateLimit needs both keys: { calls: 10, window: 1m }.");
      return Optional.empty();
    }
    RateLimit limit = new RateLimit(calls.get(), window.get());
    return Optional.of(spec -> spec.with(limit));
  }

  private static Optional<JsonNode> writeRateLimit(StubSpec stub) throws Unwritable {
    return only(stub, RateLimit.class)
        .map(
            limit ->
                StubNodes.member("calls", StubNodes.number(BigDecimal.valueOf(limit.calls())))
                    .put("window", limit.window().toString()));
  }

  private static Optional<UnaryOperator<StubSpec>> readFlaky(StubFields stub) {
    Optional<Node> node = stub.fields().get("flaky");
    if (node.isEmpty()) {
      return Optional.empty();
    }
    Fields fields = stub.within(node.get(), "key of flaky", FLAKY);
    Optional<Double> probability = fields.fraction("probability").filter(it -> it >= 0 && it <= 1);
    if (probability.isEmpty()) {
      stub.problems()
          .add(
              node.get(),
              "flaky needs a probability from 0 to 1: { probability: 0.2, failures: [503] }.");
      return Optional.empty();
    }
    List<Answer> failures = stub.answers(fields.list("failures"));
    Flaky flaky =
        new Flaky(probability.get(), failures.isEmpty() ? List.of(Answers.status(503)) : failures);
    return Optional.of(spec -> spec.with(flaky));
  }

  private static Optional<JsonNode> writeFlaky(StubSpec stub) throws Unwritable {
    Optional<Flaky> flaky = only(stub, Flaky.class);
    if (flaky.isEmpty()) {
      return Optional.empty();
    }
    BigDecimal probability = BigDecimal.valueOf(flaky.get().probability());
    ObjectNode form = StubNodes.member("probability", StubNodes.number(probability));
    List<Optional<JsonNode>> failures =
        flaky.get().failures().stream().map(AnswerWriter::write).toList();
    return Optional.of(
        form.set(
            "failures",
            StubNodes.all(failures)
                .orElseThrow(
                    () ->
                        new Unwritable("one of its failures is computed, or waits for the test"))));
  }

  /** Returns the only behavior of a kind; a file has no place for more. */
  private static <T extends Behavior> Optional<T> only(StubSpec stub, Class<T> kind)
      throws Unwritable {
    List<T> all =
        stub.behaviors().stream()
            .flatMap(it -> kind.isInstance(it) ? Stream.of(kind.cast(it)) : Stream.empty())
            .toList();
    if (all.size() > 1) {
      throw new Unwritable("it has two behaviors of the same kind");
    }
    return all.stream().findFirst();
  }
}
