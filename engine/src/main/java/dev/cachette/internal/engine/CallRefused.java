// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

/** Thrown if a call cannot be answered; its caller gets the refusal. */
final class CallRefused extends RuntimeException {

  private static final long serialVersionUID = 1;

  private final transient Refusal refusal;

  CallRefused(Refusal refusal) {
    super(refusal.failure().getMessage(), null, false, false);
    this.refusal = refusal;
  }

  Refusal refusal() {
    return refusal;
  }
}
