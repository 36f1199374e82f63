// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import dev.cachette.Cachette;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;
import org.opentest4j.AssertionFailedError;

/** A call for a test whose class has ended fails the run, and no other class. */
@ResourceLock(InterceptHttp.LOCK)
class LateRunTest {

  private static final CountDownLatch NEXT_CLASS = new CountDownLatch(1);
  private static final ExecutorService POLLER = Executors.newSingleThreadExecutor();
  private static volatile Future<Integer> polling;

  /** Starts what it does not end. */
  @InterceptHttp
  static class Starting {

    @Test
    void startsAPoller() {
      polling =
          POLLER.submit(
              () -> {
                NEXT_CLASS.await();
                return status();
              });
    }
  }

  /** Runs when the call comes. */
  @InterceptHttp
  static class Waiting {

    @Test
    void makesNoCalls(Cachette net) throws Exception {
      NEXT_CLASS.countDown();
      assertEquals(501, polling.get(20, TimeUnit.SECONDS));
      net.calls().assertNone();
    }
  }

  private static int status() throws IOException {
    return ((HttpURLConnection) URI.create("http://tides.example/v1").toURL().openConnection())
        .getResponseCode();
  }

  @Test
  void theRunFails() throws InterruptedException {
    LauncherSession session = LauncherFactory.openSession();
    SummaryGeneratingListener summary = new SummaryGeneratingListener();
    for (Class<?> each : List.of(Starting.class, Waiting.class)) {
      var request = LauncherDiscoveryRequestBuilder.request().selectors(selectClass(each)).build();
      // Not on this thread, which works for this test.
      Thread run = new Thread(() -> session.getLauncher().execute(request, summary), "run");
      run.start();
      run.join();
      assertEquals(
          1,
          summary.getSummary().getTestsSucceededCount(),
          () -> each + ": " + summary.getSummary().getFailures().get(0).getException());
    }
    POLLER.shutdown();

    AssertionFailedError failure = assertThrows(AssertionFailedError.class, session::close);
    assertTrue(
        failure.getMessage().contains("LateRunTest$Starting.startsAPoller"), failure::getMessage);
    assertTrue(failure.getMessage().contains("its test is over"), failure::getMessage);
  }
}
