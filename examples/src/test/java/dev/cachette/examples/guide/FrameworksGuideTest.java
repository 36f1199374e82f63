// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.Assert.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.junit.InterceptHttp;
import java.util.List;
import org.junit.Rule;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.rules.TestRule;
import org.junit.runner.Description;
import org.junit.runner.JUnitCore;
import org.junit.runner.Result;
import org.junit.runner.notification.Failure;
import org.junit.runners.model.Statement;

/** The snippets of docs/guide/frameworks.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class FrameworksGuideTest {

  @Test
  void plainCode() {
    // snippet plain
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1/tides").answer(text("04:10"));

      assertEquals("04:10", Http.call("GET", "https://tides.example/v1/tides").body());
    }
    // end
  }

  @Test
  void theRuleOfJUnit4FailsTheTestWithTheUnexpectedCall() {
    Result result = JUnitCore.runClasses(TidesTest.class);

    List<String> failed =
        result.getFailures().stream().map(it -> it.getDescription().getMethodName()).toList();
    assertEquals(3, result.getRunCount());
    assertEquals(List.of("callsWithoutAStub", "failsByItself"), failed.stream().sorted().toList());
    for (Failure failure : result.getFailures()) {
      Throwable thrown = failure.getException();
      Throwable unexpected = thrown.getSuppressed().length > 0 ? thrown.getSuppressed()[0] : thrown;
      assertTrue(unexpected.getMessage().startsWith("Unexpected call: "), () -> failure.getTrace());
    }
  }

  // snippet rule
  /** Intercepts the calls of each test. */
  static final class CachetteRule implements TestRule {

    private Cachette net;

    Cachette net() {
      return net;
    }

    @Override
    public Statement apply(Statement test, Description description) {
      return new Statement() {
        @Override
        public void evaluate() throws Throwable {
          try (Cachette opened =
              Cachette.open(Settings.defaults().name(description.getDisplayName()))) {
            net = opened;
            try {
              test.evaluate();
            } catch (Throwable failure) {
              opened.markFailed(failure);
              throw failure;
            }
          }
        }
      };
    }
  }

  // end

  /** A test class of JUnit 4, run above. */
  public static class TidesTest {

    // snippet rule-used
    @Rule public final CachetteRule cachette = new CachetteRule();

    @org.junit.Test
    public void readsTheTides() {
      cachette.net().stub("GET https://tides.example/v1/tides").answer(text("04:10"));

      assertEquals("04:10", Http.call("GET", "https://tides.example/v1/tides").body());
    }

    // end

    @org.junit.Test
    public void callsWithoutAStub() {
      Http.call("GET", "https://tides.example/v1/stations");
    }

    @org.junit.Test
    public void failsByItself() {
      Http.call("GET", "https://tides.example/v1/stations");
      throw new AssertionError("the desk is closed");
    }
  }
}
