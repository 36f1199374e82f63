package dev.cachette;

import dev.cachette.calls.Call;

/**
 * A page that shows the calls of a whole test run, in all its sessions. Implemented by {@code
 * cachette-control}, and found as a service. Not public API: may change in any release.
 *
 * @hidden
 */
public interface RunPage {

  /**
   * Opens it; once.
   *
   * @return its URL
   * @throws IllegalStateException if the port is taken
   */
  String open(int port);

  /** A session has begun. */
  void begin(Cachette net);

  /** A session is about to end. */
  void end(Cachette net);

  /** A call has arrived, in the scope of this test; on any thread, which must not wait. */
  void arrived(Call call, String test);
}
