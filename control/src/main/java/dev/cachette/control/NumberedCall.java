// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import dev.cachette.calls.Call;
import dev.cachette.calls.ForwardingCall;
import dev.cachette.calls.MadeBy;
import java.util.Optional;

/** A call with a number that is unique in the run, not only in its session. */
final class NumberedCall extends ForwardingCall {

  private final long number;
  private final MadeBy madeBy;

  /**
   * Creates it.
   *
   * @param test the test of its scope, for a call of which it is not known which test made it
   */
  NumberedCall(long number, Call call, String test) {
    super(call);
    this.number = number;
    MadeBy known = call.madeBy();
    this.madeBy =
        known.test().isPresent()
            ? known
            : new MadeBy(Optional.of(test), known.thread(), known.evidence());
  }

  @Override
  public long number() {
    return number;
  }

  @Override
  public MadeBy madeBy() {
    return madeBy;
  }
}
