package java.net;

import java.lang.ref.WeakReference;

/**
 * The test that something is done for, with how that is known. Immutable. Threads keep the last
 * one, so it refers to nothing of the user's.
 */
final class CachetteMark {

  /** Nothing is known. */
  static final int NONE = 0;

  /** The thread was started by a thread of the test: a hint, as it may work for others now. */
  static final int STARTED = 1;

  /** Two tests used the same connection at the same time. */
  static final int SEVERAL = 2;

  /** The test handed a task over to the thread. */
  static final int HANDED_OVER = 3;

  /** The test's own thread. */
  static final int OWN = 4;

  /** Until the thread has done its task. */
  static final int TASK_IS_DONE = 0;

  /** Until the thread takes the next element of a queue. */
  static final int NEXT_IS_TAKEN = 1;

  /** The number of the test's scope; 0 if it is not known. */
  final long test;

  final int how;

  /** The thread that did it, or that handed it over. */
  final WeakReference<Thread> thread;

  final String threadName;

  /** How long a thread keeps it. */
  final int until;

  CachetteMark(long test, int how, Thread thread) {
    this(test, how, new WeakReference<>(thread), thread.getName(), TASK_IS_DONE);
  }

  private CachetteMark(
      long test, int how, WeakReference<Thread> thread, String threadName, int until) {
    this.test = test;
    this.how = how;
    this.thread = thread;
    this.threadName = threadName;
    this.until = until;
  }

  /** Returns the mark of the current thread, which has taken a task over. */
  CachetteMark takenOver(int keptUntil) {
    Thread taking = Thread.currentThread();
    return new CachetteMark(
        test, HANDED_OVER, new WeakReference<>(taking), taking.getName(), keptUntil);
  }

  /** Returns what is known of a connection that two marks were left on. */
  CachetteMark and(CachetteMark next) {
    if (how == SEVERAL || next.how < HANDED_OVER || next.test == test && next.how <= how) {
      return this;
    }
    boolean conflict = how >= HANDED_OVER && next.test != test;
    return conflict ? new CachetteMark(0, SEVERAL, next.thread, next.threadName, TASK_IS_DONE) : next;
  }
}
