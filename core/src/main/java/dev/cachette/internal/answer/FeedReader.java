// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.answer;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;

/** Receives the pieces of a feed; called under the feed's lock, so it must not block. */
public interface FeedReader {

  /** Called with the next piece. */
  void piece(Body piece);

  /** Called at the normal end. */
  void end(Headers trailers);

  /** Called if the body is aborted. */
  void broken();
}
