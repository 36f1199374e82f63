// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import dev.cachette.Cachette;
import dev.cachette.Factories;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;

/** Tests that run at the same time, of which one intercepts. */
@ResourceLock(InterceptHttp.LOCK)
class ParallelRunTest {

  private static final CountDownLatch INTERCEPTING = new CountDownLatch(1);
  private static final CountDownLatch CALLED = new CountDownLatch(1);
  private static volatile String response = "";

  /** Intercepts, and makes a call of its own. */
  @InterceptHttp
  static class Intercepting {

    @Test
    void reads(Cachette net) throws Exception {
      net.stub("GET http://tides.example/v1").answer(Factories.text("04:10"));
      INTERCEPTING.countDown();
      assertTrue(CALLED.await(20, TimeUnit.SECONDS));
      assertEquals("04:10", get());
      net.calls().assertCount(1);
    }
  }

  /** Does not intercept, and calls at the same time. */
  static class Neighbour {

    @Test
    void calls() throws Exception {
      assertTrue(INTERCEPTING.await(20, TimeUnit.SECONDS));
      response = get();
      CALLED.countDown();
    }
  }

  private static String get() throws IOException {
    HttpURLConnection connection =
        (HttpURLConnection) URI.create("http://tides.example/v1").toURL().openConnection();
    try (var in =
        connection.getResponseCode() < 400
            ? connection.getInputStream()
            : connection.getErrorStream()) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  @Test
  void theCallsOfANeighbourAreKeptApart() throws Exception {
    SummaryGeneratingListener summary = new SummaryGeneratingListener();
    try (LauncherSession session = LauncherFactory.openSession()) {
      var request =
          LauncherDiscoveryRequestBuilder.request()
              .selectors(selectClass(Intercepting.class), selectClass(Neighbour.class))
              .configurationParameter("junit.jupiter.execution.parallel.enabled", "true")
              .configurationParameter(
                  "junit.jupiter.execution.parallel.mode.classes.default", "concurrent")
              .configurationParameter("junit.jupiter.execution.parallel.config.strategy", "fixed")
              .configurationParameter(
                  "junit.jupiter.execution.parallel.config.fixed.parallelism", "2")
              .build();
      Thread run =
          new Thread(() -> session.getLauncher().execute(request, summary), "parallel run");
      run.start();
      run.join();
    }

    assertEquals(2, summary.getSummary().getTestsSucceededCount());
    assertEquals(0, summary.getSummary().getContainersFailedCount());
    assertTrue(
        response.startsWith(
            "Unexpected call: GET http://tides.example/v1"
                + " (of another test: ParallelRunTest$Neighbour.calls)"),
        response);
    assertTrue(response.contains("@ResourceLock(InterceptHttp.LOCK)"), response);
  }
}
