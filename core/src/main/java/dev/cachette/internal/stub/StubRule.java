package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.explain.Obstacle;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.template.Template;
import dev.cachette.internal.text.DurationText;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import dev.cachette.result.StubStatus;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;

/**
 * An active stub: a pattern, its answers, and when it is active. Mutable state is guarded by the
 * lock of {@link Scopes}.
 */
public final class StubRule {

  private final RequestPattern pattern;
  private StubReference reference;
  private final List<StubCheck> checks;
  private final boolean expected;
  private boolean overriding;
  private Optional<Place> place = Optional.empty();
  private int beaten;
  private Optional<StubReference> beatenBy = Optional.empty();
  private Optional<String> bodyFile = Optional.empty();
  private final Turns turns;
  private List<StubRule> predecessors = List.of();
  private Instant from = Instant.MIN;
  private Instant until = Instant.MAX;
  private List<ServiceBehavior> behaviors = List.of();
  private Runnable restart = () -> {};
  private boolean unchecked;
  private Optional<Supplier<JsonNode>> collection = Optional.empty();
  private boolean used;

  /**
   * Creates a stub that has not answered yet.
   *
   * @param answers at least one
   * @param expected whether it is reported if no call uses it
   */
  public StubRule(
      RequestPattern pattern,
      StubReference reference,
      List<Answer> answers,
      List<StubCheck> checks,
      boolean expected) {
    this.pattern = pattern;
    this.reference = reference;
    List<Answer> all =
        answers.stream().flatMap(it -> AnswerInternals.expanded(it).stream()).toList();
    all.forEach(this::requirePossible);
    this.turns = new Turns(all);
    this.checks = List.copyOf(checks);
    this.expected = expected;
  }

  /** Returns its request pattern. */
  public RequestPattern pattern() {
    return pattern;
  }

  /** Returns its name and place. */
  public StubReference reference() {
    return reference;
  }

  /** Sets its name. */
  public void rename(String name) {
    if (used) {
      throw Refusals.state(
          String.format(
              "The stub %s has answered calls by this name. Fix: call named(\"%s\") where it is"
                  + " declared.",
              reference, name));
    }
    reference = new StubReference(name, reference.place());
  }

  /** Saves the bodies of its requests to a file. */
  public void keepBodyIn(Optional<String> file) {
    bodyFile = file;
  }

  /** Returns the file for the bodies of its requests. */
  public Optional<String> bodyFile() {
    return bodyFile;
  }

  /** Returns the checks of its requests. */
  public List<StubCheck> checks() {
    return checks;
  }

  Turns turns() {
    return turns;
  }

  /** Returns its answers, in turn. */
  public List<Answer> answers() {
    return turns.answers();
  }

  /** Returns the answers to single calls, by number. */
  public Map<Integer, Answer> answersOnCall() {
    return turns.onCall();
  }

  /** Returns the maximum number of calls; empty for no limit. */
  public OptionalInt limit() {
    return turns.limit();
  }

  /** Returns true if the first answer follows the last one. */
  public boolean isLooping() {
    return turns.then() == Turns.Then.FIRST_AGAIN;
  }

  /** Returns true if each answer is given once. */
  public boolean isOnceEach() {
    return turns.then() == Turns.Then.USED_UP;
  }

  /** Returns the stubs that must be called first. */
  public List<StubReference> after() {
    return predecessors.stream().map(StubRule::reference).toList();
  }

  /** Returns when it becomes active; empty for always. */
  public Optional<Instant> from() {
    return Optional.of(from).filter(it -> !it.equals(Instant.MIN));
  }

  /** Returns when it expires; empty for never. */
  public Optional<Instant> until() {
    return Optional.of(until).filter(it -> !it.equals(Instant.MAX));
  }

  /**
   * Returns the stub-file form of its behaviors; empty for those that cannot be written.
   *
   * @param writing writes an answer, if possible
   */
  public List<Optional<JsonNode>> behaviors(Function<Answer, Optional<JsonNode>> writing) {
    return behaviors.stream().map(behavior -> behavior.written(writing)).toList();
  }

  /** Repeats the answers from the first one. */
  public void looping() {
    requireFree("looping()", isOnceEach(), "onceEach()");
    turns.then(Turns.Then.FIRST_AGAIN);
  }

  /** Gives each answer once. */
  public void onceEach() {
    requireFree("onceEach()", isLooping(), "looping()");
    turns.then(Turns.Then.USED_UP);
  }

  /** Limits the number of calls. */
  public void times(int calls) {
    turns.limit(calls);
  }

  /** Sets the answer to one call. */
  public void onCall(int number, Answer answer) {
    requirePossible(answer);
    turns.onCall(number, answer);
  }

  /** Activates it only after a call of another stub. */
  public void activeAfter(StubRule other) {
    predecessors = Stream.concat(predecessors.stream(), Stream.of(other)).toList();
  }

  /** Activates it at an instant. */
  public void activeFrom(Instant instant) {
    requireOrder(instant, until);
    from = instant;
  }

  /** Expires it at an instant. */
  public void activeUntil(Instant instant) {
    requireOrder(from, instant);
    until = instant;
  }

  /** Limits calls per time window, and answers 429 to others. */
  public void rateLimit(int calls, Duration window) {
    add(new RateLimit(calls, window));
  }

  /** Answers 503 to the first calls. */
  public void failFirst(int calls) {
    add(new FailFirst(calls));
  }

  /** Fails at random, with a probability and a seed. */
  public void flaky(double probability, List<Answer> failures, long seed) {
    failures.forEach(this::requireLate);
    add(new Flaky(probability, failures, reference.toString(), seed));
  }

  /** Wins over more specific stubs of the same scope. */
  public void overriding() {
    overriding = true;
  }

  /** Returns true if it wins over more specific stubs of the same scope. */
  public boolean isOverriding() {
    return overriding;
  }

  private void requireFree(String method, boolean taken, String other) {
    if (taken) {
      throw Refusals.state(
          String.format(
              "The stub %s cannot be %s and %s. Fix: remove one of them.",
              reference, other, method));
    }
  }

  private void requireOrder(Instant start, Instant end) {
    if (!start.isBefore(end)) {
      throw Refusals.argument(
          String.format(
              "The stub %s would never be active: from %s, until %s.", reference, start, end));
    }
  }

  private void requirePossible(Answer answer) {
    if (answer instanceof ResponseAnswer plain && AnswerInternals.delivery(plain).template()) {
      Template.requireVariables(
          plain.response(), MatchInternals.variables(pattern), pattern.line());
    }
    if (MatchInternals.isPlain(pattern)
        && answer instanceof Fault fault
        && fault.kind().stage() == Fault.Stage.HANDSHAKE) {
      throw Refusals.argument(
          String.format(
              "The stub %s is for plain HTTP, which has no TLS, so \"%s\" is impossible. Fix: stub"
                  + " https://.",
              reference, fault));
    }
  }

  private void requireLate(Answer failure) {
    if (isEarly(failure)) {
      throw Refusals.argument(
          String.format(
              "The stub %s cannot fail with \"%s\", which happens before there is a request. Fix:"
                  + " use connectionReset(), noResponse(), or a status.",
              reference, failure));
    }
  }

  private void add(ServiceBehavior behavior) {
    behaviors = Stream.concat(behaviors.stream(), Stream.of(behavior)).toList();
  }

  /** Returns the next answer, if it is active and not used up. */
  Optional<Answer> take(Supplier<Instant> time) {
    // Most stubs are always active and do not need the time.
    if (!isAlwaysActive() || !behaviors.isEmpty()) {
      Instant now = time.get();
      if (!isActive(now)) {
        return Optional.empty();
      }
      Optional<Answer> instead = instead(now);
      if (instead.isPresent()) {
        used = true;
        return instead;
      }
    }
    Optional<Answer> answer = turns.next();
    used |= answer.isPresent();
    return answer;
  }

  /** Returns the replacement for the next answer, if a behavior has one. */
  private Optional<Answer> instead(Instant now) {
    if (!turns.isUsedUp()) {
      for (ServiceBehavior behavior : behaviors) {
        Optional<Answer> instead = behavior.instead(now);
        if (instead.isPresent()) {
          return instead;
        }
      }
    }
    return Optional.empty();
  }

  /** Returns its next answer if that is a fault before the request. */
  Optional<Fault> earlyFault(Instant now) {
    return isActive(now)
        ? turns.peek().filter(StubRule::isEarly).map(Fault.class::cast)
        : Optional.empty();
  }

  /** Returns true if one of its answers is a fault before the request. */
  boolean hasEarlyFault() {
    return turns.has(StubRule::isEarly);
  }

  /** Returns true if an answer is a fault before the request. */
  static boolean isEarly(Answer answer) {
    return answer instanceof Fault fault && fault.kind().stage().isEarly();
  }

  /** Returns its notes for a failed test. */
  List<String> notes() {
    return behaviors.stream().flatMap(behavior -> behavior.note().stream()).toList();
  }

  /** Excludes its requests and answers from checks against the API description. */
  public void unchecked() {
    unchecked = true;
  }

  /** Returns true if it is excluded from these checks. */
  public boolean isUnchecked() {
    return unchecked;
  }

  /** Marks it as a stub of a collection, with this form in stub files. */
  public void belongTo(Supplier<JsonNode> form) {
    collection = Optional.of(form);
  }

  /** Writes the collection that it belongs to; empty if there is none. */
  public Optional<Supplier<JsonNode>> collection() {
    return collection;
  }

  /** Registers an action that runs when it is reset. */
  public void onStartAgain(Runnable action) {
    restart = action;
  }

  void startAgain(long seed) {
    restart.run();
    turns.startAgain();
    behaviors.forEach(behavior -> behavior.startAgain(seed));
  }

  /** Notes that another stub answered a call that this one matches. */
  void noteBeaten(StubReference winner) {
    beaten++;
    beatenBy = Optional.of(winner);
  }

  /** Returns how many calls that it matches were answered by another stub. */
  int beaten() {
    return beaten;
  }

  /** Returns the last stub that won over it. */
  Optional<StubReference> beatenBy() {
    return beatenBy;
  }

  /** Returns the line of code that declared it; empty for a stub of a file. */
  Optional<Place> place() {
    return place;
  }

  /** Sets the line of code that declared it. */
  public void declaredAt(Place line) {
    place = Optional.of(line);
  }

  boolean isUnused() {
    return expected && !used;
  }

  /** Returns true if it answers every matching call, without an end. */
  boolean isUnconditional() {
    return isAlwaysActive() && !turns.canBeUsedUp();
  }

  /** Returns why it does not answer now, even a matching request; empty if it would answer. */
  List<Check> obstacles(Instant now) {
    List<Check> obstacles = new ArrayList<>();
    for (StubRule other : predecessors) {
      if (other.turns.count() == 0) {
        obstacles.add(
            Obstacle.of(
                Obstacle.AFTER, "a call of " + other.reference + " first", "no such call yet"));
      }
    }
    if (now.isBefore(from)) {
      obstacles.add(
          Obstacle.of(
              Obstacle.FROM,
              "a call at or after " + from,
              String.format(
                  "called at %s, %s before the start",
                  now, DurationText.of(Duration.between(now, from)))));
    }
    if (!now.isBefore(until)) {
      obstacles.add(
          Obstacle.of(
              Obstacle.UNTIL,
              "a call before " + until,
              String.format(
                  "called at %s, %s after the end",
                  now, DurationText.of(Duration.between(until, now)))));
    }
    if (turns.isUsedUp()) {
      String times = turns.count() == 1 ? "1 call" : turns.count() + " calls";
      obstacles.add(
          Obstacle.of(
              Obstacle.USED_UP,
              "at most " + times,
              "already used up by "
                  + (turns.count() == 1 ? "1 earlier call" : turns.count() + " earlier calls")));
    }
    return obstacles;
  }

  /** Returns what has become of it. */
  StubStatus status(String scope, Instant now, Optional<StubReference> coveredBy) {
    return new StubStatus(
        reference,
        pattern.toString(),
        scope,
        turns.count(),
        beaten,
        beatenBy,
        obstacles(now),
        coveredBy,
        isUnused(),
        turns.uses());
  }

  private boolean isAlwaysActive() {
    return predecessors.isEmpty() && from.equals(Instant.MIN) && until.equals(Instant.MAX);
  }

  private boolean isActive(Instant now) {
    return !now.isBefore(from)
        && now.isBefore(until)
        && (predecessors.isEmpty()
            || predecessors.stream().allMatch(other -> other.turns.count() > 0));
  }
}
