package dev.cachette.answer;

import java.util.ArrayList;
import java.util.List;

/**
 * Holds answers back until the test opens it, so that what the code under test does while it waits
 * can be asserted without a single sleep:
 *
 * <pre>{@code
 * Gate gate = new Gate();
 * net.stub("GET https://tides.example/v1/tides").answer(json(tides).heldBy(gate));
 *
 * desk.refresh();                                  // begins to load
 * net.calls().awaitArrival(1, Duration.ofSeconds(5));  // the call is held
 * assertEquals("loading", desk.state());
 *
 * gate.open();
 * }</pre>
 *
 * <p>A gate that stays closed holds its calls until their caller hangs up or the test ends, which
 * ends their connections. Safe to use from any thread.
 */
public final class Gate {

  private final List<Runnable> held = new ArrayList<>();
  private boolean open;

  /** A closed gate. */
  public Gate() {}

  /** Lets all go that is held, and all that comes later. Opening again does nothing. */
  public void open() {
    List<Runnable> going;
    synchronized (this) {
      open = true;
      going = List.copyOf(held);
      held.clear();
    }
    going.forEach(Runnable::run);
  }

  /** Lets only those go that are held now, in the order they came; later ones are held. */
  public void release() {
    List<Runnable> going;
    synchronized (this) {
      going = List.copyOf(held);
      held.clear();
    }
    going.forEach(Runnable::run);
  }

  /** Holds from now on what comes, until it is opened again. */
  public synchronized void close() {
    open = false;
  }

  /** Whether it lets everything pass. */
  public synchronized boolean isOpen() {
    return open;
  }

  /** How many answers it holds now. */
  public synchronized int held() {
    return held.size();
  }

  /**
   * Does something once the gate lets it go: at once if it is open, else on the thread that opens
   * it.
   *
   * @return withdraws it, if it has not gone yet
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

  /** Whether it is open, and how many it holds. */
  @Override
  public synchronized String toString() {
    return open ? "an open gate" : "a closed gate that holds " + held.size();
  }
}
