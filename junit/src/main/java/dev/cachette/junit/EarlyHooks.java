package dev.cachette.junit;

import dev.cachette.Cachette;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;

/**
 * Installs the hooks before tests are discovered, so that Cachette knows all connections. JUnit
 * finds it by the service loader.
 */
public final class EarlyHooks implements LauncherSessionListener {

  /** For JUnit. */
  public EarlyHooks() {}

  @Override
  public void launcherSessionOpened(LauncherSession session) {
    try {
      Cachette.prepare();
    } catch (IllegalStateException notHere) {
      // Tests that intercept will report it; others are not affected.
    }
  }
}
