package dev.cachette.internal.answer;

import dev.cachette.http.Body;

/** Receives the pieces of a feed; called under the feed's lock, so it must not block. */
public interface FeedReader {

  /** Called with the next piece. */
  void piece(Body piece);

  /**
   * Called at the end.
   *
   * @param inOrder false if the body is aborted
   */
  void end(boolean inOrder);
}
