package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.InetSocketAddress;

/** What an intercepted session decides about destinations, and where it wants their calls. */
public interface Destinations {

  /** Whether calls to this host and port are wanted even though it is this machine. */
  boolean wantsLocal(String host, int port);

  /**
   * Where calls to this host and port shall arrive: an address that listens already.
   *
   * @throws IOException if no such address can be had
   */
  InetSocketAddress listenerFor(String host, int port) throws IOException;
}
