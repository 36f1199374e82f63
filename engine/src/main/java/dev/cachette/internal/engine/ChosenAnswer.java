// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.internal.explain.Explained;
import dev.cachette.result.StubReference;
import java.util.Optional;

/** The answer that was chosen for a call, and how to give it. */
interface ChosenAnswer {

  /** Returns the call that it is for, as its source understands it. */
  ArrivedCall call();

  /** Returns what answers, for the log; empty if nothing does. */
  default Optional<StubReference> reference() {
    return Optional.empty();
  }

  /** Returns true if {@link #reply} runs user code, or calls a real service: it may be slow. */
  default boolean takesTime() {
    return false;
  }

  /** Returns true if the call is checked against the API description of its service. */
  default boolean isChecked() {
    return true;
  }

  /**
   * Returns the reply.
   *
   * @param pending the call, to note what happens to it
   * @throws StubFailed if user code throws
   * @throws DescribedCall.Misfit if the call, or the answer, violates the API description
   * @throws CallRefused if it cannot be answered like that
   */
  Reply reply(PendingCall pending);

  /** Returns why nothing answers; empty if something does. May take long. */
  default Optional<Explained> whyNothingAnswers() {
    return Optional.empty();
  }

  /** Returns true if nothing answers. */
  default boolean isUnexpected() {
    return false;
  }

  /** Records that the caller disconnected before there was a reply. */
  default void hungUp() {}

  /**
   * Returns true if the next answer is a fault before the request: it needs a new connection.
   *
   * @param connections the rules for connections
   */
  default boolean needsNewConnectionNext(ConnectionRules connections) {
    return false;
  }

  /** Returns the failure if the reply cannot be sent to this client. */
  default StubFailed cannotBeSent(String why) {
    throw new IllegalStateException(why);
  }
}
