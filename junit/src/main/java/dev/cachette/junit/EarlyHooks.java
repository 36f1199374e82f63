// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.Cachette;
import dev.cachette.Guard;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;
import org.slf4j.LoggerFactory;

/**
 * Installs the hooks before tests are discovered, so that Cachette knows all connections, and
 * guards the network for the whole run, if {@code cachette.guard} is {@code on}. JUnit finds it by
 * the service loader.
 */
public final class EarlyHooks implements LauncherSessionListener {

  private @Nullable Guard guard;

  /** For JUnit. */
  public EarlyHooks() {}

  @Override
  public void launcherSessionOpened(LauncherSession session) {
    try {
      Cachette.prepare();
    } catch (IllegalStateException notHere) {
      // Tests that intercept will report it; others are not affected.
      return;
    }
    session.getLauncher().registerTestExecutionListeners(new RunningTests());
    if (GuardProperties.isOn()) {
      guard = Cachette.guard(GuardProperties.allowed());
    }
  }

  /** Fails the run if the guard refused anything, or if calls came later than their classes. */
  @Override
  public void launcherSessionClosed(LauncherSession session) {
    if (guard != null) {
      guard.close();
    } else {
      warnOfConnectionsOut();
    }
    Guard.requireNoLateCalls();
  }

  private static void warnOfConnectionsOut() {
    List<String> out = Guard.connectionsOut();
    if (!out.isEmpty()) {
      LoggerFactory.getLogger(Cachette.class)
          .warn(
              "While no test intercepted, connections left this machine, to {}. To refuse and list"
                  + " them, set cachette.guard=on in junit-platform.properties.",
              String.join(", ", out));
    }
  }
}
