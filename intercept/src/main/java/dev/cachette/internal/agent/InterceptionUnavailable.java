package dev.cachette.internal.agent;

import org.jspecify.annotations.Nullable;

/** This JVM cannot be made to intercept; the message says why and what to do. */
public final class InterceptionUnavailable extends IllegalStateException {

  private static final long serialVersionUID = 1L;

  /** With the mend that always works: to start the JVM with the agent. */
  InterceptionUnavailable(String why, @Nullable Throwable cause) {
    super(
        "Cachette cannot intercept in this JVM: "
            + why
            + ". Mend: start the JVM with -javaagent:/path/to/cachette.jar.",
        cause);
  }
}
