// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.answer;

import java.util.ArrayList;
import java.util.List;

/** The state of a {@code Gate}, with what waits for it. Thread-safe. */
public final class GateState {

  private final List<Runnable> held = new ArrayList<>();
  private boolean open;

  /** Opens it, and runs everything that waits. */
  public void open() {
    List<Runnable> going;
    synchronized (this) {
      open = true;
      going = List.copyOf(held);
      held.clear();
    }
    going.forEach(Runnable::run);
  }

  /** Runs everything that waits now, in order. */
  public void release() {
    List<Runnable> going;
    synchronized (this) {
      going = List.copyOf(held);
      held.clear();
    }
    going.forEach(Runnable::run);
  }

  /** Closes it. */
  public synchronized void close() {
    open = false;
  }

  /** Returns true if it is open. */
  public synchronized boolean isOpen() {
    return open;
  }

  /** Returns the number of waiting actions. */
  public synchronized int held() {
    return held.size();
  }

  /**
   * Runs an action when the gate is open: immediately if it is, else on the thread that opens it.
   *
   * @return cancels the action, unless it has run
   */
  public Runnable pass(Runnable action) {
    synchronized (this) {
      if (!open) {
        held.add(action);
        return () -> withdraw(action);
      }
    }
    action.run();
    return () -> {};
  }

  private synchronized void withdraw(Runnable action) {
    held.remove(action);
  }

  /** Returns its state, and how many actions it holds. */
  @Override
  public synchronized String toString() {
    return open ? "an open gate" : "a closed gate, holding " + held.size();
  }
}
