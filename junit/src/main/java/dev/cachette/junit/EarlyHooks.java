package dev.cachette.junit;

import dev.cachette.Cachette;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;

/**
 * Puts the hooks in before the first test is even found, so that no client can have a connection
 * from before that Cachette does not know. JUnit finds it by the service loader.
 */
public final class EarlyHooks implements LauncherSessionListener {

  /** For JUnit. */
  public EarlyHooks() {}

  @Override
  public void launcherSessionOpened(LauncherSession session) {
    try {
      Cachette.prepare();
    } catch (IllegalStateException notHere) {
      // A test that intercepts says so; others need not care.
    }
  }
}
