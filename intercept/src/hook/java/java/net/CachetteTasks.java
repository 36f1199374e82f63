package java.net;

import java.lang.ref.Reference;
import java.lang.ref.ReferenceQueue;

/** The marks of tasks that wait to be run; a part of them, to be used under its lock. */
final class CachetteTasks {

  private static final int STRIPES = 64;
  private static final CachetteTasks[] ALL = new CachetteTasks[STRIPES];

  static {
    for (int at = 0; at < STRIPES; at++) {
      ALL[at] = new CachetteTasks();
    }
  }

  private final ReferenceQueue<Object> dead = new ReferenceQueue<>();
  private CachetteTask[] table = new CachetteTask[16];
  private int size;

  private CachetteTasks() {}

  /** Remembers the mark of a task, or that it has none. */
  static void put(Object task, CachetteMark mark) {
    int hash = System.identityHashCode(task);
    CachetteTasks part = ALL[hash & STRIPES - 1];
    synchronized (part) {
      part.removeDead();
      part.remove(task, hash);
      if (mark != null) {
        part.add(task, hash, mark);
      }
    }
  }

  /** Returns the mark of a task, or null. */
  static CachetteMark get(Object task) {
    int hash = System.identityHashCode(task);
    CachetteTasks part = ALL[hash & STRIPES - 1];
    synchronized (part) {
      for (CachetteTask entry = part.table[part.index(hash)]; entry != null; entry = entry.next) {
        if (entry.refersTo(task)) {
          return entry.mark;
        }
      }
      return null;
    }
  }

  private int index(int hash) {
    return (hash >>> 6) & table.length - 1;
  }

  private void add(Object task, int hash, CachetteMark mark) {
    if (size > table.length) {
      grow();
    }
    int at = index(hash);
    table[at] = new CachetteTask(task, hash, mark, table[at], dead);
    size++;
  }

  private void remove(Object task, int hash) {
    CachetteTask before = null;
    int at = index(hash);
    for (CachetteTask entry = table[at]; entry != null; before = entry, entry = entry.next) {
      if (entry.refersTo(task)) {
        unlink(at, before, entry);
        return;
      }
    }
  }

  private void removeDead() {
    for (Reference<?> gone = dead.poll(); gone != null; gone = dead.poll()) {
      int at = index(((CachetteTask) gone).hash);
      CachetteTask before = null;
      for (CachetteTask entry = table[at]; entry != null; before = entry, entry = entry.next) {
        if (entry == gone) {
          unlink(at, before, entry);
          break;
        }
      }
    }
  }

  private void unlink(int at, CachetteTask before, CachetteTask entry) {
    if (before == null) {
      table[at] = entry.next;
    } else {
      before.next = entry.next;
    }
    size--;
  }

  private void grow() {
    CachetteTask[] old = table;
    table = new CachetteTask[old.length * 2];
    for (CachetteTask bucket : old) {
      for (CachetteTask entry = bucket; entry != null; ) {
        CachetteTask next = entry.next;
        int at = index(entry.hash);
        entry.next = table[at];
        table[at] = entry;
        entry = next;
      }
    }
  }
}
