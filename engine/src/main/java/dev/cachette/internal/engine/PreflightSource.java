// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import java.util.Optional;

/** The answers to browsers that ask whether a page may call, if that is allowed. */
final class PreflightSource implements AnswerSource {

  private final Scopes scopes;

  PreflightSource(Scopes scopes) {
    this.scopes = scopes;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return CrossOrigin.isPreflight(call.request()) && scopes.allowsCrossOrigin()
        ? Optional.of(new Preflight(call))
        : Optional.empty();
  }

  private record Preflight(ArrivedCall call) implements ChosenAnswer {

    @Override
    public Reply reply(PendingCall pending) {
      return Reply.of(CrossOrigin.preflight(call.request()));
    }
  }
}
