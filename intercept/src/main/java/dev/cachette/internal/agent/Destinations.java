package dev.cachette.internal.agent;

import dev.cachette.answer.Trouble;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.Optional;
import java.util.OptionalInt;

/** What an intercepted session decides about destinations, and where it wants their calls. */
public interface Destinations {

  /** Whether calls to this host and port are wanted even though it is this machine. */
  boolean wantsLocal(String host, int port);

  /**
   * Whether connections to this host are left alone.
   *
   * @param port the port, or none while its name is looked up
   */
  boolean letsThrough(String host, OptionalInt port);

  /** The trouble that the next look-up or connection meets; its turn is over then. */
  Optional<Trouble> meet(Trouble.Stage stage, String host, OptionalInt port);

  /**
   * Where calls to this host and port shall arrive: an address that listens already.
   *
   * @throws java.net.ConnectException if nothing can be expected there; the message says why
   * @throws IOException if no such address can be had
   */
  InetSocketAddress listenerFor(String host, int port) throws IOException;
}
