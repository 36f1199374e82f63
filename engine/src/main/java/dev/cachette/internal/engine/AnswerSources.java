// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Explained;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.explain.Situation;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** All that may answer a call, in the order in which it is asked. */
final class AnswerSources {

  private final Scopes scopes;
  private final PlainCalls plain;
  private final ActiveStubs stubs;
  private final List<AnswerSource> inOrder;

  AnswerSources(Scopes scopes, HostServices outside) {
    this.scopes = scopes;
    this.plain = new PlainCalls(scopes);
    this.stubs = new ActiveStubs(scopes, outside);
    this.inOrder =
        List.of(
            new LateSource(outside),
            stubs,
            new ServiceSource(scopes),
            new ChallengeSource(scopes),
            new ExampleSource(),
            new LetThroughSource(scopes, outside),
            new CaptureSource(scopes, outside),
            new CassetteSource(scopes, outside),
            new PreflightSource(scopes),
            new UnexpectedSource(outside, this::explain));
  }

  /** Returns the stubs. */
  ActiveStubs stubs() {
    return stubs;
  }

  /**
   * Chooses the answer to a call.
   *
   * @throws StubFailed if user code throws
   */
  ChosenAnswer choose(ArrivedCall arrived) {
    ArrivedCall call = arrived;
    for (AnswerSource source : inOrder) {
      Optional<ChosenAnswer> chosen = source.choose(call);
      if (chosen.isPresent()) {
        return chosen.get();
      }
      call = source.passOn(call);
    }
    throw new IllegalStateException("nothing answers " + arrived.request());
  }

  /** Explains why nothing answers a call, by what each of them has. */
  private Explained explain(ArrivedCall call) {
    ArrivedCall meant = plain.asStubbed(call);
    Situation situation = Situation.NONE;
    for (AnswerSource source : inOrder) {
      Optional<String> refusal = source.refusal(call);
      if (refusal.isPresent()) {
        return Explained.of(refusal.get());
      }
      situation = situation.and(source.situation(meant));
    }
    return Explanation.ofUnexpected(meant.request(), situation)
        .and(call.described().map(DescribedCall::remark).orElse(""))
        .and(
            scopes.services().of(call.request()).stream()
                .map(ServedService::description)
                .collect(Collectors.joining()));
  }
}
