// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.answer.Fault;
import java.util.Optional;

/** Decides about a connection before there is a request. */
public interface HandshakePolicy {

  /** Returns the fault that a TLS handshake for this host and port gets, and moves on past it. */
  Optional<Fault> atHandshake(String host, int port);

  /** Returns true if HTTP is expected there: a stub names it. */
  boolean expectsHttp(String host, int port);
}
