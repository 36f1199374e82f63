// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import dev.cachette.Cachette;
import dev.cachette.RunPage;
import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import dev.cachette.calls.CallsInternals;
import dev.cachette.internal.calls.GrowingList;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.openapi.Described;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;

/**
 * The live page of a test run: the calls of all sessions, and the stubs of the one that is open. It
 * only shows; stubs belong to the tests. Thread-safe.
 */
public final class TestRunPage implements RunPage {

  private static final int MOST_CALLS = 100_000;

  /** Guarded by this, like the others. */
  private final GrowingList<Call> calls = new GrowingList<>();

  private final Deque<Cachette> sessions = new ArrayDeque<>();
  private long arrived;
  private long dropped;

  @Override
  public String open(int port) {
    Controlled run = new Controlled(this::present, this::calls, false);
    ControlledSessions none =
        new ControlledSessions(
            () -> {
              throw new IllegalStateException(
                  "This is a test run. Sessions are for cachette serve.");
            });
    InetSocketAddress at = new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
    return new ControlPort(run, none, at, null).open() + "/";
  }

  @Override
  public synchronized void opened(Cachette net) {
    sessions.push(net);
  }

  @Override
  public synchronized void closing(Cachette net) {
    sessions.remove(net);
  }

  @Override
  public synchronized void arrived(Call call, TestId test, Optional<Described> service) {
    calls.add(new NumberedCall(++arrived, call, test.name()));
    if (calls.size() > MOST_CALLS) {
      calls.removeFirst();
      dropped++;
    }
  }

  private synchronized Cachette present() {
    if (sessions.isEmpty()) {
      throw new IllegalStateException("No session is open at the moment.");
    }
    return sessions.peek();
  }

  private Calls calls() {
    return CallsInternals.of(this::entries);
  }

  private synchronized Log.Entries<Call> entries() {
    return new Log.Entries<>(calls.snapshot(), dropped, List.of(), List.of());
  }
}
