// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import dev.cachette.internal.answer.GateState;

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

  private final GateState state = new GateState();

  /** Creates a closed gate. */
  public Gate() {}

  /** Releases all held answers, and lets all later ones pass. Further calls have no effect. */
  public void open() {
    state.open();
  }

  /** Releases the answers that are held now, in order of arrival; later ones are held. */
  public void release() {
    state.release();
  }

  /** Holds all answers from now on, until it is opened again. */
  public void close() {
    state.close();
  }

  /** Returns true if it lets all answers pass. */
  public boolean isOpen() {
    return state.isOpen();
  }

  /** Returns the number of answers that it holds. */
  public int held() {
    return state.held();
  }

  /** Returns its state, for the timing of answers. */
  GateState state() {
    return state;
  }

  /** Returns its state, and how many answers it holds. */
  @Override
  public String toString() {
    return state.toString();
  }
}
