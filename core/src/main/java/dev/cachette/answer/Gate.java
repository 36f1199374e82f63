package dev.cachette.answer;

import java.util.ArrayList;
import java.util.List;

/**
 * Holds answers back until the test opens it, so that you can assert what the code under test does
 * while it waits, without a sleep:
 *
 * <pre>{@code
 * Gate gate = new Gate();
 * net.stub("GET https://tides.example/v1/tides").answer(json(tides).heldBy(gate));
 * desk.refresh();                                  // begins to load
 * net.calls().awaitArrival(1, Duration.ofSeconds(5));  // the call is held
 * assertEquals("loading", desk.state());
 * gate.open();
 * }</pre>
 *
 * <p>A gate that stays closed holds its calls until their caller disconnects or the test ends,
 * which closes their connections. Thread-safe.
 */
public final class Gate {

  private final List<Runnable> held = new ArrayList<>();
  private boolean open;

  /** Creates a closed gate. */
  public Gate() {}

  /** Releases all held answers, and lets all later ones pass. Further calls have no effect. */
  public void open() {
    List<Runnable> going;
    synchronized (this) {
      open = true;
      going = List.copyOf(held);
      held.clear();
    }
    going.forEach(Runnable::run);
  }

  /** Releases the answers that are held now, in order of arrival; later ones are held. */
  public void release() {
    List<Runnable> going;
    synchronized (this) {
      going = List.copyOf(held);
      held.clear();
    }
    going.forEach(Runnable::run);
  }

  /** Holds all answers from now on, until it is opened again. */
  public synchronized void close() {
    open = false;
  }

  /** Returns true if it lets all answers pass. */
  public synchronized boolean isOpen() {
    return open;
  }

  /** Returns the number of answers that it holds. */
  public synchronized int held() {
    return held.size();
  }

  /**
   * Runs an action when the gate is open: immediately if it is, else on the thread that opens it.
   *
   * @return cancels the action, unless it has run
   */
  Runnable pass(Runnable action) {
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

  /** Returns its state, and how many answers it holds. */
  @Override
  public synchronized String toString() {
    return open ? "an open gate" : "a closed gate, holding " + held.size();
  }
}
