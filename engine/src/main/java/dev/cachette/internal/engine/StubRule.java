// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.internal.explain.Obstacle;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.ActivePeriod;
import dev.cachette.internal.model.AnswerOrder;
import dev.cachette.internal.model.BehaviorState;
import dev.cachette.internal.model.DeclaredStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.text.DurationText;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import dev.cachette.result.StubStatus;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/**
 * An active stub: its data, and what changes while calls arrive, which is guarded by the lock of
 * {@link Scopes}.
 */
public final class StubRule {

  private final long seed;
  private final Optional<Place> place;
  private final boolean expected;
  private final Turns turns;
  private final List<BehaviorState> behaviors = new ArrayList<>();
  private volatile StubSpec spec;
  private List<StubRule> predecessors = List.of();
  private boolean used;
  private int beaten;
  private Optional<StubReference> beatenBy = Optional.empty();
  private Runnable restart = () -> {};
  private Optional<Supplier<JsonNode>> collection = Optional.empty();

  /**
   * Creates a stub that has not answered yet.
   *
   * @param place the line that declared it, if it is known
   * @param expected whether it is reported if no call uses it
   * @param seed the seed of what is random
   */
  public StubRule(StubSpec spec, Optional<Place> place, boolean expected, long seed) {
    this.spec = spec;
    this.place = place;
    this.expected = expected;
    this.seed = seed;
    this.turns = new Turns(spec.order());
    beginBehaviors();
  }

  /** Returns what was declared. */
  public StubSpec spec() {
    return spec;
  }

  /** Returns its request pattern. */
  public RequestPattern pattern() {
    return spec.pattern();
  }

  /** Returns its name and place. */
  public StubReference reference() {
    return spec.reference();
  }

  private AnswerOrder order() {
    return spec.order();
  }

  /** Returns how many answers it has given. */
  public int count() {
    return turns.count();
  }

  Turns turns() {
    return turns;
  }

  /** Changes what was declared; its answers remain, and their turns go on. */
  void change(UnaryOperator<StubSpec> change) {
    StubSpec changed = change.apply(spec);
    if (used && !changed.reference().equals(reference())) {
      throw Refusals.state(
          String.format(
              "The stub %s has answered calls by this name. Fix: call named(\"%s\") where it is"
                  + " declared.",
              reference(), changed.reference().name()));
    }
    spec = changed;
    beginBehaviors();
  }

  private void beginBehaviors() {
    while (behaviors.size() < spec.behaviors().size()) {
      behaviors.add(spec.behaviors().get(behaviors.size()).begin(reference(), seed));
    }
  }

  /** Returns it as it would be declared again. */
  public DeclaredStub declared() {
    return new DeclaredStub(
        spec(), predecessors.stream().map(StubRule::reference).toList(), collection);
  }

  /** Activates it only after a call of another stub. */
  public void activeAfter(StubRule other) {
    predecessors = Stream.concat(predecessors.stream(), Stream.of(other)).toList();
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
    Optional<Answer> answer = turns.next(order());
    used |= answer.isPresent();
    return answer;
  }

  /** Returns the replacement for the next answer, if a behavior has one. */
  private Optional<Answer> instead(Instant now) {
    if (!isUsedUp()) {
      for (BehaviorState behavior : behaviors) {
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
        ? turns.peek(order()).filter(AnswerInternals::isEarly).map(Fault.class::cast)
        : Optional.empty();
  }

  /** Returns true if one of its answers is a fault before the request. */
  boolean hasEarlyFault() {
    return order().has(AnswerInternals::isEarly);
  }

  /** Returns its notes for a failed test. */
  List<String> notes() {
    return behaviors.stream().flatMap(behavior -> behavior.note().stream()).toList();
  }

  /** Marks it as a stub of a collection, with this form in stub files. */
  public void belongTo(Supplier<JsonNode> form) {
    collection = Optional.of(form);
  }

  /** Registers an action that runs when it is reset. */
  public void onStartAgain(Runnable action) {
    restart = action;
  }

  void startAgain() {
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

  /** Returns the line that declared it, if it is known. */
  Optional<Place> place() {
    return place;
  }

  boolean isUnused() {
    return expected && !used;
  }

  /** Returns true if it answers every matching call, without an end. */
  boolean isUnconditional() {
    return isAlwaysActive() && !order().canBeUsedUp();
  }

  /** Returns why it does not answer now, even a matching request; empty if it would answer. */
  List<Check> obstacles(Instant now) {
    List<Check> obstacles = new ArrayList<>();
    ActivePeriod period = spec.period();
    for (StubRule other : predecessors) {
      if (other.turns.count() == 0) {
        obstacles.add(
            Obstacle.of(
                Obstacle.AFTER, "a call of " + other.reference() + " first", "no such call yet"));
      }
    }
    if (now.isBefore(period.from())) {
      obstacles.add(
          Obstacle.of(
              Obstacle.FROM,
              "a call at or after " + period.from(),
              String.format(
                  "called at %s, %s before the start",
                  now, DurationText.of(Duration.between(now, period.from())))));
    }
    if (!now.isBefore(period.until())) {
      obstacles.add(
          Obstacle.of(
              Obstacle.UNTIL,
              "a call before " + period.until(),
              String.format(
                  "called at %s, %s after the end",
                  now, DurationText.of(Duration.between(period.until(), now)))));
    }
    if (isUsedUp()) {
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
        reference(),
        pattern().toString(),
        scope,
        turns.count(),
        beaten,
        beatenBy,
        obstacles(now),
        coveredBy,
        isUnused(),
        turns.uses(order()));
  }

  private boolean isUsedUp() {
    return order().isUsedUpAfter(turns.count());
  }

  private boolean isAlwaysActive() {
    return predecessors.isEmpty() && spec.period().equals(ActivePeriod.ALWAYS);
  }

  private boolean isActive(Instant now) {
    return spec.period().contains(now)
        && (predecessors.isEmpty()
            || predecessors.stream().allMatch(other -> other.turns.count() > 0));
  }
}
