package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.Trouble;
import dev.cachette.calls.StubReference;
import dev.cachette.match.Check;
import dev.cachette.match.Difference;
import dev.cachette.match.RequestPattern;
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
 * A stub as it is used: a pattern, its answers, and when it is live. All but what it was made with
 * is guarded by the lock of {@link Scopes}.
 */
public final class StubRule {

  private final RequestPattern pattern;
  private final StubReference reference;
  private final List<StubCheck> checks;
  private final boolean expected;
  private Optional<String> bodyFile = Optional.empty();
  private final Turns turns;
  private List<StubRule> predecessors = List.of();
  private Instant from = Instant.MIN;
  private Instant until = Instant.MAX;
  private List<Habit> habits = List.of();
  private Runnable restart = () -> {};
  private boolean undescribed;
  private Optional<Supplier<JsonNode>> collection = Optional.empty();
  private boolean used;

  /**
   * A stub that has not answered yet.
   *
   * @param answers at least one
   * @param expected whether it is worth a word if no call uses it
   */
  public StubRule(
      RequestPattern pattern,
      StubReference reference,
      List<Answer> answers,
      List<StubCheck> checks,
      boolean expected) {
    this.pattern = pattern;
    this.reference = reference;
    answers.forEach(this::requirePossible);
    this.turns = new Turns(answers);
    this.checks = List.copyOf(checks);
    this.expected = expected;
  }

  /** Which requests it is for. */
  public RequestPattern pattern() {
    return pattern;
  }

  /** Its name and place. */
  public StubReference reference() {
    return reference;
  }

  /** Keeps the bodies of its requests in a file. */
  public void keepBodyIn(Optional<String> file) {
    bodyFile = file;
  }

  /** The file that bodies of its requests are kept in. */
  public Optional<String> bodyFile() {
    return bodyFile;
  }

  /** What must hold for its requests. */
  public List<StubCheck> checks() {
    return checks;
  }

  Turns turns() {
    return turns;
  }

  /** Its answers, in turn. */
  public List<Answer> answers() {
    return turns.answers();
  }

  /** What single calls get instead, by their number. */
  public Map<Integer, Answer> answersOnCall() {
    return turns.onCall();
  }

  /** How many calls it answers; empty for any number. */
  public OptionalInt limit() {
    return turns.limit();
  }

  /** Whether the first answer follows the last one. */
  public boolean isLooping() {
    return turns.then() == Turns.Then.FIRST_AGAIN;
  }

  /** Whether each answer is given once. */
  public boolean isOnceEach() {
    return turns.then() == Turns.Then.SPENT;
  }

  /** What must have been called before it is live. */
  public List<StubReference> after() {
    return predecessors.stream().map(StubRule::reference).toList();
  }

  /** Since when it is live; empty for always. */
  public Optional<Instant> from() {
    return Optional.of(from).filter(it -> !it.equals(Instant.MIN));
  }

  /** Until when it is live; empty for ever. */
  public Optional<Instant> until() {
    return Optional.of(until).filter(it -> !it.equals(Instant.MAX));
  }

  /**
   * How a stub file says what the service does now and then; empty for what it cannot say.
   *
   * @param writing writes an answer, if it can be written
   */
  public List<Optional<JsonNode>> habits(Function<Answer, Optional<JsonNode>> writing) {
    return habits.stream().map(habit -> habit.written(writing)).toList();
  }

  /** After the last answer, the first one follows again. */
  public void looping() {
    turns.then(Turns.Then.FIRST_AGAIN);
  }

  /** Each answer is given once. */
  public void onceEach() {
    turns.then(Turns.Then.SPENT);
  }

  /** It answers so many calls. */
  public void times(int calls) {
    turns.limit(calls);
  }

  /** One call gets this answer. */
  public void onCall(int number, Answer answer) {
    requirePossible(answer);
    turns.onCall(number, answer);
  }

  /** It is live once the other was called. */
  public void liveAfter(StubRule other) {
    predecessors = Stream.concat(predecessors.stream(), Stream.of(other)).toList();
  }

  /** It is live at and after an instant. */
  public void liveFrom(Instant instant) {
    from = instant;
  }

  /** It is live before an instant. */
  public void liveUntil(Instant instant) {
    until = instant;
  }

  /** It takes so many calls in a window of time, and answers 429 to the others. */
  public void budget(int calls, Duration window) {
    add(new Budget(calls, window));
  }

  /** It answers 503 to its first calls. */
  public void unavailableFirst(int calls) {
    add(new Warmup(calls));
  }

  /** It fails now and then, by a probability and a seed. */
  public void flaky(double probability, List<Answer> failures, long seed) {
    failures.forEach(this::requireLate);
    add(new Flaky(probability, failures, reference.toString(), seed));
  }

  private void requirePossible(Answer answer) {
    if (pattern.isPlain()
        && answer instanceof Trouble trouble
        && trouble.kind().stage() == Trouble.Stage.HANDSHAKE) {
      throw new IllegalArgumentException(
          String.format(
              "The stub %s is for plain HTTP, which has no TLS that \"%s\" could come of. "
                  + "Mend: stub https://.",
              reference, trouble));
    }
  }

  private void requireLate(Answer failure) {
    if (isEarly(failure)) {
      throw new IllegalArgumentException(
          String.format(
              "The stub %s cannot be flaky by \"%s\", which comes before there is a request. "
                  + "Mend: connectionReset(), silence(), or a status.",
              reference, failure));
    }
  }

  private void add(Habit habit) {
    habits = Stream.concat(habits.stream(), Stream.of(habit)).toList();
  }

  /** The next answer, if it is live and not spent. */
  Optional<Answer> take(Supplier<Instant> time) {
    // Most stubs are live always, and the time is not asked for.
    if (!isLiveAlways() || !habits.isEmpty()) {
      Instant now = time.get();
      if (!isLive(now)) {
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

  /** What a habit answers in place of the next answer. */
  private Optional<Answer> instead(Instant now) {
    if (!turns.isSpent()) {
      for (Habit habit : habits) {
        Optional<Answer> instead = habit.instead(now);
        if (instead.isPresent()) {
          return instead;
        }
      }
    }
    return Optional.empty();
  }

  /** Its next answer if that is a trouble that comes before there is a request. */
  Optional<Trouble> earlyTrouble(Instant now) {
    return isLive(now)
        ? turns.peek().filter(StubRule::isEarly).map(Trouble.class::cast)
        : Optional.empty();
  }

  /** Whether one of its answers is a trouble that comes before there is a request. */
  boolean hasEarlyTrouble() {
    return turns.has(StubRule::isEarly);
  }

  /** Whether an answer is a trouble that comes before there is a request. */
  static boolean isEarly(Answer answer) {
    return answer instanceof Trouble trouble && trouble.kind().stage().isEarly();
  }

  /** What is worth knowing of it when a test failed. */
  List<String> notes() {
    return habits.stream().flatMap(habit -> habit.note().stream()).toList();
  }

  /** Neither its requests nor its answers are held against the description of the service. */
  public void undescribed() {
    undescribed = true;
  }

  /** Whether they are not. */
  public boolean isUndescribed() {
    return undescribed;
  }

  /** It is one of the stubs of a collection, which a stub file has in this form. */
  public void belongTo(Supplier<JsonNode> form) {
    collection = Optional.of(form);
  }

  /** Writes the collection that it is a stub of; empty if it is of none. */
  public Optional<Supplier<JsonNode>> collection() {
    return collection;
  }

  /** From now on, runs this whenever it begins anew. */
  public void onStartAgain(Runnable action) {
    restart = action;
  }

  void startAgain(long seed) {
    restart.run();
    turns.startAgain();
    habits.forEach(habit -> habit.startAgain(seed));
  }

  boolean isUnused() {
    return expected && !used;
  }

  /** Whether it answers every call that fits, for ever. */
  boolean isUnconditional() {
    return isLiveAlways() && !turns.canBeSpent();
  }

  /** Why it does not answer now, though a request may fit; empty if it would answer. */
  List<Check> obstacles(Instant now) {
    List<Check> obstacles = new ArrayList<>();
    for (StubRule other : predecessors) {
      if (other.turns.count() == 0) {
        obstacles.add(
            missed("after", "a call of " + other.reference + " before", "no such call yet"));
      }
    }
    if (now.isBefore(from)) {
      obstacles.add(missed("from", "a call at or after " + from, "called at " + now));
    }
    if (!now.isBefore(until)) {
      obstacles.add(missed("until", "a call before " + until, "called at " + now));
    }
    if (turns.isSpent()) {
      String times = turns.count() == 1 ? "1 call" : turns.count() + " calls";
      obstacles.add(missed("turn", times + " at most", "used up by " + times + " before this one"));
    }
    return obstacles;
  }

  private boolean isLiveAlways() {
    return predecessors.isEmpty() && from.equals(Instant.MIN) && until.equals(Instant.MAX);
  }

  private boolean isLive(Instant now) {
    return !now.isBefore(from)
        && now.isBefore(until)
        && (predecessors.isEmpty()
            || predecessors.stream().allMatch(other -> other.turns.count() > 0));
  }

  private static Check missed(String condition, String expected, String actual) {
    return Check.missed(condition, 0.8, Difference.of(expected, actual));
  }
}
