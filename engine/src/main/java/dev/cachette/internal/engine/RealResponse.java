// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.LiveBody;
import java.util.Optional;

/**
 * The response of a real service.
 *
 * @param response the complete response; or its head, if the body is still arriving
 * @param arriving the body, if it is still arriving
 * @param length the length of that body, if it is known
 */
public record RealResponse(
    Response response, Optional<Arriving> arriving, Optional<String> length) {

  /** A body that is still arriving. */
  public interface Arriving extends LiveBody {

    /** Ends the exchange with what has arrived, unless it has ended. */
    void stop();
  }

  /**
   * A connection that may be used for another protocol (RFC 9110 section 7.8), if the status is
   * 101.
   */
  public interface Upgraded extends Arriving {

    /** Sends bytes to the service. */
    void send(byte[] bytes);
  }

  /** Returns a response that has arrived completely. */
  public static RealResponse complete(Response response) {
    return new RealResponse(response, Optional.empty(), Optional.empty());
  }

  /** Returns the reply that passes it on: at once, or as it arrives. */
  Reply reply() {
    if (arriving.isEmpty()) {
      return Reply.of(response);
    }
    Headers headers =
        length.map(it -> response.headers().with("content-length", it)).orElse(response.headers());
    return Reply.live(
        new Response(response.status(), headers, Body.empty()), arriving.get(), length.isPresent());
  }
}
