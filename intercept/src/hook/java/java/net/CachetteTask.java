package java.net;

import java.lang.ref.ReferenceQueue;
import java.lang.ref.WeakReference;

/** A task with its mark, found by identity: tasks are never wrapped, nor asked for equality. */
final class CachetteTask extends WeakReference<Object> {

  final int hash;
  final CachetteMark mark;
  CachetteTask next;

  CachetteTask(
      Object task, int hash, CachetteMark mark, CachetteTask next, ReferenceQueue<Object> dead) {
    super(task, dead);
    this.hash = hash;
    this.mark = mark;
    this.next = next;
  }
}
