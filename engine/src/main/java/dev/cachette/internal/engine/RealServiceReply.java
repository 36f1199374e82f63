// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.http.Request;

/** The reply of a real service to a call, or what its caller gets if there is none. */
final class RealServiceReply {

  private static final String COMES_BACK =
      """
      Unexpected call: %s (it would come back)

      It cannot be passed on: its target is an address that Cachette listens on, or Cachette has \
      passed it on before.

      Fix: use that address as a proxy, or serve as a service: Settings.servingAs(origin), or \
      --upstream or --for on the command line.
      """;

  private static final int BAD_GATEWAY = 502;

  private final PendingCall pending;
  private final HostServices outside;

  RealServiceReply(PendingCall pending, HostServices outside) {
    this.pending = pending;
    this.outside = outside;
  }

  /** Returns why a call is not passed on whose target is Cachette itself. */
  static String comesBack(Request request) {
    return String.format(COMES_BACK, request);
  }

  /**
   * Returns a reply that passes the response on as it arrives.
   *
   * @throws RealServiceFailed if there is none
   */
  Reply asItArrives() throws RealServiceFailed {
    return outside
        .realService()
        .begin(pending.request(), pending.protocol(), pending::complete)
        .reply();
  }

  /** Returns what the caller gets if there is none. */
  Reply failed(RealServiceFailed unreachable) {
    return failed(unreachable, Faults.connectionReset(), "");
  }

  /**
   * As {@link #failed(RealServiceFailed)}.
   *
   * @param fault what the caller gets, unless that is an explanation
   * @param consequence what else happens, for the warning
   */
  Reply failed(RealServiceFailed unreachable, Fault fault, String consequence) {
    boolean explains = outside.realService().explainsFailures();
    outside
        .warning()
        .accept(
            String.format(
                "The real service did not answer %s: %s. The client gets %s%s.\nFix: %s",
                pending.request(),
                unreachable.getMessage(),
                explains ? "502 with the reason" : "\"" + fault + "\"",
                consequence,
                unreachable.fix(explains)));
    if (!explains) {
      return Reply.fault(fault, Schedule.AT_ONCE);
    }
    pending.noteUnanswered(unreachable.getMessage());
    return Reply.of(Responder.explained(BAD_GATEWAY, unreachable.explanation(pending.request())));
  }
}
