package dev.cachette.internal.wire;

import dev.cachette.answer.Trouble;
import java.util.Optional;

/** What a connection meets before there is a request. */
public interface Encounters {

  /** The trouble that a TLS handshake for this host and port meets; its turn is over then. */
  Optional<Trouble> atHandshake(String host, int port);

  /** Whether anybody expects HTTP there: a stub names it. */
  boolean expectsHttp(String host, int port);
}
