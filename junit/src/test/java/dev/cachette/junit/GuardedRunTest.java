// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import java.io.IOException;
import java.net.URI;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;
import org.opentest4j.AssertionFailedError;

/** A run with {@code cachette.guard=on}. */
@ResourceLock(InterceptHttp.LOCK)
class GuardedRunTest {

  @AfterEach
  void off() {
    System.clearProperty("cachette.guard");
    System.clearProperty("cachette.guardAllows");
  }

  /** A test whose code swallows what happens. */
  static class Leaking {

    @Test
    void readsTheTides() {
      try {
        URI.create("http://tides.example/v1").toURL().openStream().close();
      } catch (IOException swallowed) {
        // As the code under test does.
      }
    }
  }

  /** A test that intercepts. */
  @InterceptHttp
  static class Intercepting {

    @Test
    void readsNothing() {}
  }

  @Test
  void aCallOutsideOfInterceptionFailsTheRun() {
    System.setProperty("cachette.guard", "on");
    LauncherSession session = LauncherFactory.openSession();
    assertEquals(2, succeeded(session, Leaking.class, Intercepting.class));

    AssertionFailedError failure = assertThrows(AssertionFailedError.class, session::close);
    assertTrue(
        failure.getMessage().contains("\n  tides.example, by thread \""), failure::getMessage);
    assertTrue(
        failure.getMessage().contains("for the test GuardedRunTest$Leaking.readsTheTides"),
        failure::getMessage);
  }

  @Test
  void aRunWithoutSuchCallsPasses() {
    System.setProperty("cachette.guard", "on");
    try (LauncherSession session = LauncherFactory.openSession()) {
      assertEquals(1, succeeded(session, Intercepting.class));
    }
  }

  @Test
  void anotherValueIsRefused() {
    System.setProperty("cachette.guard", "yes");
    RuntimeException refused = assertThrows(RuntimeException.class, LauncherFactory::openSession);
    assertTrue(refused.toString().contains("Allowed: on, off."), refused::toString);
  }

  private static long succeeded(LauncherSession session, Class<?>... tests) {
    SummaryGeneratingListener summary = new SummaryGeneratingListener();
    LauncherDiscoveryRequestBuilder request = LauncherDiscoveryRequestBuilder.request();
    for (Class<?> test : tests) {
      request.selectors(selectClass(test));
    }
    // Not on this thread, which works for this test.
    Thread run =
        new Thread(() -> session.getLauncher().execute(request.build(), summary), "guarded run");
    run.start();
    try {
      run.join();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
    return summary.getSummary().getTestsSucceededCount();
  }
}
