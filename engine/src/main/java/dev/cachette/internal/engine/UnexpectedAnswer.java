// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Explained;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** The reply to a call that nothing answers: why. */
final class UnexpectedAnswer implements ChosenAnswer {

  private static final int NOT_IMPLEMENTED = 501;

  private final ArrivedCall call;
  private final HostServices outside;
  private final Supplier<Explained> explaining;
  private @Nullable Explained explained;

  UnexpectedAnswer(ArrivedCall call, HostServices outside, Supplier<Explained> explaining) {
    this.call = call;
    this.outside = outside;
    this.explaining = explaining;
  }

  @Override
  public ArrivedCall call() {
    return call;
  }

  @Override
  public boolean isUnexpected() {
    return true;
  }

  @Override
  public Optional<Explained> whyNothingAnswers() {
    if (explained == null) {
      explained = explaining.get();
    }
    return Optional.of(explained);
  }

  @Override
  public Reply reply(PendingCall pending) {
    String text = whyNothingAnswers().orElseThrow().text();
    if (pending.noteUnexpected(text)) {
      outside.warning().accept(text);
    }
    Arrival arrival = call.arrival();
    if (arrival.isOrphan() && arrival.carrier().maker().test().isOver()) {
      outside.orphans().accept(text);
    }
    return Reply.of(Responder.explained(NOT_IMPLEMENTED, text));
  }
}
