// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.platform.testkit.engine.EngineExecutionResults;

/** Tests that intercept take turns; others do not wait for them. */
class ParallelTest {

  private static final Map<String, String> PARALLEL =
      Map.of(
          "junit.jupiter.execution.parallel.enabled", "true",
          "junit.jupiter.execution.parallel.mode.default", "concurrent",
          "junit.jupiter.execution.parallel.config.strategy", "fixed",
          "junit.jupiter.execution.parallel.config.fixed.parallelism", "8");

  private static final AtomicInteger INSIDE = new AtomicInteger();

  @Test
  void thoseThatInterceptNeverRunAtTheSameTime() {
    EngineExecutionResults results =
        Engine.run(PARALLEL, First.class, Second.class, WithField.class, EachMethod.class);

    assertEquals(List.of(), Engine.failures(results));
    results.testEvents().assertStatistics(events -> events.succeeded(24).failed(0));
  }

  @Test
  void othersRunBesideThem() {
    EngineExecutionResults results = Engine.run(PARALLEL, Waits.class, Beside.class);

    assertEquals(List.of(), Engine.failures(results));
  }

  @Test
  void thoseThatDoNotInterceptRunAtTheSameTime() {
    EngineExecutionResults results = Engine.run(PARALLEL, EachItsOwn.class);

    assertEquals(List.of(), Engine.failures(results));
    results.testEvents().assertStatistics(events -> events.succeeded(6));
  }

  static class EachItsOwn {

    private static final CyclicBarrier ALL = new CyclicBarrier(6);

    @RegisterExtension
    static final CachetteExtension CACHETTE =
        CachetteExtension.with(Settings.defaults().withoutInterception());

    @RepeatedTest(6)
    void seesItsOwnCallsOnly(Cachette net, RepetitionInfo repetition) throws Exception {
      String number = Integer.toString(repetition.getCurrentRepetition());
      net.stub("GET https://tides.example/v1").answer(text(number));
      String base = net.baseUrlFor("https://tides.example");
      ALL.await(30, TimeUnit.SECONDS);

      try (InputStream in = URI.create(base + "/v1").toURL().openStream()) {
        assertEquals(number, new String(in.readAllBytes(), StandardCharsets.UTF_8));
      }
      net.calls().assertCount(1);
    }
  }

  @Test
  void aFieldWithoutTheLockIsRefused() {
    List<String> failures = Engine.failures(Engine.run(PARALLEL, Unlocked.class));

    assertEquals(1, failures.size());
    assertTrue(
        failures.get(0).contains("Fix: annotate the class with @ResourceLock(InterceptHttp.LOCK)"),
        failures.get(0));
    assertEquals(List.of(), Engine.failures(Engine.run(Unlocked.class)));
    assertThrows(IllegalArgumentException.class, () -> CachetteExtension.with(null));
  }

  private static void alone(Cachette net) {
    assertEquals(1, INSIDE.incrementAndGet());
    net.stub("GET https://tides.example/v1").answer(status(204));
    assertEquals(204, Url.status("https://tides.example/v1"));
    net.calls().assertCount(1);
    INSIDE.decrementAndGet();
  }

  @InterceptHttp
  static class First {

    @RepeatedTest(6)
    void test(Cachette net) {
      alone(net);
    }
  }

  @InterceptHttp
  static class Second {

    @RepeatedTest(6)
    void test(Cachette net) {
      alone(net);
    }
  }

  @ResourceLock(InterceptHttp.LOCK)
  static class WithField {

    @RegisterExtension
    static final CachetteExtension CACHETTE =
        CachetteExtension.with(Settings.defaults().maxRequestBody(10));

    @RepeatedTest(6)
    void test(Cachette net) {
      alone(net);
    }
  }

  static class EachMethod {

    @InterceptHttp
    @RepeatedTest(6)
    void test(Cachette net) {
      alone(net);
    }
  }

  static final CountDownLatch BESIDE = new CountDownLatch(1);

  @InterceptHttp
  static class Waits {

    @Test
    void forTheOther() throws InterruptedException {
      assertTrue(BESIDE.await(30, TimeUnit.SECONDS));
    }
  }

  static class Beside {

    @Test
    void runs() {
      BESIDE.countDown();
    }
  }

  static class Unlocked {

    @RegisterExtension
    static final CachetteExtension CACHETTE = CachetteExtension.with(Settings.defaults());

    @Test
    void test() {}
  }
}
