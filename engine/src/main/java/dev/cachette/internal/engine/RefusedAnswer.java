// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

/**
 * No answer: none could be chosen, because a predicate threw for example.
 *
 * @param call the call
 * @param refusal the reason
 */
record RefusedAnswer(ArrivedCall call, Refusal refusal) implements ChosenAnswer {

  @Override
  public Reply reply(PendingCall pending) {
    throw new CallRefused(refusal);
  }
}
