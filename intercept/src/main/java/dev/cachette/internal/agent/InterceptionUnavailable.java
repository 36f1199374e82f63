// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import org.jspecify.annotations.Nullable;

/** Thrown if this JVM does not support interception; the message says why and what to do. */
public final class InterceptionUnavailable extends IllegalStateException {

  private static final long serialVersionUID = 1L;

  /** Creates an exception with the fix that always works: to start the JVM with the agent. */
  InterceptionUnavailable(String why, @Nullable Throwable cause) {
    super(
        "Cachette cannot intercept in this JVM: "
            + why
            + ". Fix: start the JVM with -javaagent:/path/to/cachette.jar.",
        cause);
  }
}
