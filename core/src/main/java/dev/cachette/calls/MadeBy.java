// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import java.util.Optional;

/**
 * Who made a call, as far as it is known: a call is followed from the test over its own threads,
 * executors, timers and queues to the connection.
 *
 * @param test the test, such as {@code BerthDeskTest.books}; empty if it cannot be told
 * @param thread the name of the thread that sent the request, or that handed it to the client;
 *     empty if it is not known, for example for a call from another program
 * @param evidence how the test is known
 */
public record MadeBy(Optional<String> test, Optional<String> thread, Evidence evidence) {

  /** Nothing is known. */
  public static final MadeBy UNKNOWN =
      new MadeBy(Optional.empty(), Optional.empty(), Evidence.NONE);

  /** How it is known which test made a call. */
  public enum Evidence {
    /** Nothing tells: it cannot be told which test it was. */
    NONE,
    /**
     * A test has started the thread, which may work for others now, or handed work over to the
     * client of an HTTP/2 connection, which others share: a hint, not a proof.
     */
    STARTED_THREAD,
    /** Several tests used the connection at once: it cannot be told which one it was. */
    SEVERAL,
    /** The test handed a task over to the thread, by an executor, a timer, or a queue. */
    HANDED_OVER,
    /** The test's own thread made the call. */
    TEST_THREAD;

    /** Returns true if the test is certain. */
    public boolean isCertain() {
      return this == HANDED_OVER || this == TEST_THREAD;
    }
  }

  /** Returns it in words: {@code thread poll-1, for the test TidesTest.polls}. */
  @Override
  public String toString() {
    String by = thread.map(name -> "thread \"" + name + "\"").orElse("an unknown thread");
    return switch (evidence) {
      case NONE -> by;
      case STARTED_THREAD ->
          by + test.map(name -> ", which the test " + name + " started").orElse("");
      case SEVERAL -> by + ", on a connection that several tests used";
      case HANDED_OVER, TEST_THREAD -> by + test.map(name -> ", for the test " + name).orElse("");
    };
  }
}
