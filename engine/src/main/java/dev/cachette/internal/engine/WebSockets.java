// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.internal.explain.Explanation;
import dev.cachette.internal.text.Failed;
import dev.cachette.result.StubReference;
import java.util.Optional;

/**
 * WebSockets (RFC 6455), which Cachette only passes on to real services: it cannot answer for one.
 */
final class WebSockets {

  private static final int NOT_IMPLEMENTED = 501;
  private static final int REDIRECTION = 300;

  private WebSockets() {}

  /**
   * Returns a reply, if it can be given to this request.
   *
   * @param by what answers
   * @throws CallRefused if the request asks for a WebSocket, and the reply does not reject it
   */
  static Reply checked(Request request, Reply reply, Optional<StubReference> by) {
    if (!Explanation.asksForWebSocket(request)
        || reply.upgrade().isPresent()
        || reply.response().filter(it -> it.status() < REDIRECTION).isEmpty()) {
      return reply;
    }
    throw new CallRefused(
        new Refusal(
            NOT_IMPLEMENTED,
            Failed.of(
                String.format(
                    "%s asks for a WebSocket (RFC 6455), which Cachette does not support: %s"
                        + " answers it with %d.\n\n"
                        + "Fix: reject it, with status(426) for example, let it through, or use"
                        + " another transport.\n",
                    request,
                    by.map(StubReference::toString).orElse("something"),
                    reply.response().orElseThrow().status()))));
  }
}
