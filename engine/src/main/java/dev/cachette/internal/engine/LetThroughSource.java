// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Situation;
import dev.cachette.result.StubReference;
import java.util.Optional;

/** The real services, for calls that are let through. */
final class LetThroughSource implements AnswerSource {

  private final Scopes scopes;
  private final HostServices outside;

  LetThroughSource(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.outside = outside;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return scopes
        .letsThrough(call.received())
        .filter(rule -> !outside.realService().isOurself(call.request()))
        .map(rule -> new PassedOn(call, rule, outside));
  }

  @Override
  public Situation situation(ArrivedCall call) {
    return Situation.through(
        scopes.ask(
            all ->
                all.stream()
                    .flatMap(scope -> scope.through().stream())
                    .map(LetThrough::reference)
                    .toList()));
  }

  @Override
  public Optional<String> refusal(ArrivedCall call) {
    return scopes
        .letsThrough(call.received())
        .filter(rule -> outside.realService().isOurself(call.request()))
        .map(rule -> RealServiceReply.comesBack(call.request()));
  }

  private record PassedOn(ArrivedCall call, LetThrough rule, HostServices outside)
      implements ChosenAnswer {

    @Override
    public Optional<StubReference> reference() {
      return Optional.of(rule.reference());
    }

    @Override
    public boolean takesTime() {
      return true;
    }

    @Override
    public Reply reply(PendingCall pending) {
      RealServiceReply real = new RealServiceReply(pending, outside);
      try {
        return real.asItArrives();
      } catch (RealServiceFailed unreachable) {
        return real.failed(unreachable);
      }
    }
  }
}
