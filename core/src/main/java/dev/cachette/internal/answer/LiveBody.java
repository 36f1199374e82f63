// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.answer;

/** A body whose pieces arrive one by one, at any time. */
@FunctionalInterface
public interface LiveBody {

  /**
   * Sends a reader everything that has arrived so far, and what arrives from now on.
   *
   * @return ends the subscription
   */
  Runnable read(FeedReader reader);

  /** Called whenever the reader has passed on all it got. A source may wait for that. */
  default void passedOn() {}
}
