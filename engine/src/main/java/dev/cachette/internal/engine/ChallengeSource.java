// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.finding.CheckText;
import dev.cachette.match.Authorization;
import dev.cachette.match.MatchInternals;
import dev.cachette.result.StubReference;
import java.util.Optional;

/**
 * The challenges of stubs: they refuse requests that match but for their credentials (RFC 9110
 * section 11.4).
 */
final class ChallengeSource implements AnswerSource {

  private final Scopes scopes;

  ChallengeSource(Scopes scopes) {
    this.scopes = scopes;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    for (StubScope scope : scopes.open()) {
      for (StubRule rule : scopes.candidates(scope, call.received())) {
        Optional<Authorization> missed = MatchInternals.onlyMissed(rule.pattern(), call.received());
        if (missed.isPresent() && scopes.ask(all -> rule.obstacles(scopes.now())).isEmpty()) {
          return Optional.of(new Challenged(call, rule.reference(), missed.get()));
        }
      }
    }
    return Optional.empty();
  }

  private record Challenged(ArrivedCall call, StubReference stub, Authorization missed)
      implements ChosenAnswer {

    @Override
    public Optional<StubReference> reference() {
      return Optional.of(new StubReference("credentials of " + stub.name(), stub.place()));
    }

    @Override
    public boolean isChecked() {
      return false;
    }

    @Override
    public Reply reply(PendingCall pending) {
      pending.noteRefused(
          String.format(
              "The stub %s rejected %s: invalid credentials.\n\n%s",
              stub, call.request(), CheckText.lines(missed.check(call.received()))));
      return Reply.of(missed.challenge(call.received()));
    }
  }
}
