// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.engine.StubScope;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.match.RequestPattern;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** Declares, activates and changes the stubs of a {@link Cachette}. Thread-safe. */
final class StubControl {

  private final Session session;
  private final long seed;

  /** Throws an exception if the Cachette is closed. */
  private final Runnable requireOpen;

  StubControl(Session session, long seed, Runnable requireOpen) {
    this.session = session;
    this.seed = seed;
    this.requireOpen = requireOpen;
  }

  static void requirePattern(RequestPattern pattern) {
    if (pattern == null) {
      throw Refusals.argument("The request pattern must not be null.");
    }
  }

  DraftStub begin(RequestPattern pattern) {
    requireOpen.run();
    DraftStub draft = new DraftStub(pattern, Caller.place());
    session.scopes().begin(draft);
    return draft;
  }

  /** Activates a stub. */
  StubRule finish(DraftStub draft, List<Answer> answers) {
    requireOpen.run();
    StubSpec spec = draft.answeredBy(answers.stream().map(this::ready).toList());
    StubRule rule = rule(spec, draft.place(), true);
    session.finish(draft, rule);
    return rule;
  }

  /**
   * Returns a stub to be activated by {@link #replace}.
   *
   * @param place the line of code that declared it
   * @param expected whether it is reported if no call uses it
   */
  StubRule rule(StubSpec spec, Place place, boolean expected) {
    return new StubRule(spec, Optional.of(place), expected, seed);
  }

  Map<StubRule, StubRule> winnersOver(List<StubRule> rules) {
    return session.scopes().winnersOver(rules);
  }

  /** Replaces stubs. */
  void replace(StubScope scope, Collection<StubRule> old, List<StubRule> fresh) {
    requireOpen.run();
    session.replace(scope, old, fresh);
  }

  /** Changes what was declared of an active stub. */
  void change(StubRule rule, UnaryOperator<StubSpec> change) {
    requireOpen.run();
    session.change(rule, change);
  }

  /** Activates a stub only after a call of another one. */
  void activateAfter(StubRule rule, StubRule other) {
    requireOpen.run();
    session.scopes().activateAfter(rule, other);
  }

  /** Returns an answer with its file read. */
  Answer ready(Answer answer) {
    return session.files().ready(answer);
  }
}
