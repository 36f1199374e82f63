// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Answering;
import dev.cachette.result.StubReference;
import java.util.Optional;

/** The examples of API descriptions. */
final class ExampleSource implements AnswerSource {

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    return call.described()
        .filter(it -> it.service().answers(call.request()))
        .map(it -> new Example(call, it));
  }

  private record Example(ArrivedCall call, DescribedCall described) implements ChosenAnswer {

    @Override
    public Optional<StubReference> reference() {
      return Optional.of(described.reference());
    }

    @Override
    public Reply reply(PendingCall pending) {
      described.requireTaken(Answering.EXAMPLE);
      return described.example();
    }
  }
}
