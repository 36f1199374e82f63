// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.calls.CallsInternals;
import dev.cachette.http.Uri;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.engine.StubScope;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.match.RequestPattern;
import java.util.List;

/**
 * A service that fails: while it lasts, every call to the service gets its answers, whatever stubs
 * there are, and uses no turn of theirs. Created by {@link Cachette#outage}. It belongs to its
 * scope, like a stub. Thread-safe.
 */
public final class Outage implements CallGroup {

  private final Cachette net;
  private final String origin;
  private final StubScope scope;
  private final StubRule rule;
  private boolean ended;

  Outage(Cachette net, String service, StubScope scope, Answer first, Answer... more) {
    List<Answer> answers = StubArguments.answers("outage(origin, answers)", first, more);
    this.net = net;
    this.origin = Uri.parseOrigin(service).origin();
    this.scope = scope;
    Place place = Caller.place();
    DraftStub draft = new DraftStub(RequestPattern.of("* " + origin + "/{+any}"), place);
    draft.rename("outage of " + origin);
    draft.overriding();
    StubSpec spec =
        draft
            .answeredBy(answers.stream().map(net.stubs()::ready).toList())
            .with(StubSpec.Trait.UNCHECKED);
    this.rule = net.stubs().rule(spec, place, true);
    net.stubs().replace(scope, List.of(), List.of(rule));
  }

  /**
   * Ends it after this number of calls.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Outage times(int calls) {
    StubArguments.positive("times", calls);
    net.stubs().change(rule, it -> it.times(calls));
    return this;
  }

  /** Ends it: the stubs of the service answer again. Further calls have no effect. */
  public synchronized void end() {
    if (!ended) {
      ended = true;
      net.stubs().replace(scope, List.of(rule), List.of());
    }
  }

  /** Returns the calls that failed because of it, in its scope. */
  @Override
  public Calls calls() {
    return CallsInternals.answeredBy(net.calls(), rule.reference(), rule.pattern());
  }

  /** Returns the service. */
  @Override
  public String toString() {
    return "the outage of " + origin;
  }
}
