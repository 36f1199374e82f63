// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static dev.cachette.answer.Answers.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import dev.cachette.match.Bodies;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolver;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.testkit.engine.EngineExecutionResults;

class InterceptHttpTest {

  private static final String TIDES = "https://tides.example/v1";

  @Test
  void unusedStubsFailTheTestIfTheAnnotationSaysSo() {
    List<String> failures = Engine.failures(Engine.run(Unused.class));

    assertEquals(2, failures.size());
    assertTrue(failures.get(0).contains("\"in vain\""), failures.get(0));
    assertTrue(failures.get(1).contains("\"used by none\""), failures.get(1));
    assertTrue(failures.get(1).startsWith("1 unused stub:"), failures.get(1));
  }

  @Test
  void theSeedOfAFlakyStubIsReportedWithTheFailure() {
    Throwable failure =
        Engine.run(Flaky.class).testEvents().failed().stream()
            .flatMap(event -> event.getPayload(TestExecutionResult.class).stream())
            .flatMap(result -> result.getThrowable().stream())
            .findFirst()
            .orElseThrow();

    assertEquals("the desk gave up", failure.getMessage());
    assertTrue(
        failure.getSuppressed()[0].toString().endsWith("Settings.defaults().seed(7)."),
        failure.getSuppressed()[0]::toString);
  }

  static class Flaky {

    @RegisterExtension
    final CachetteExtension extension = CachetteExtension.with(Settings.defaults().seed(7));

    @Test
    void givesUp(Cachette net) throws Exception {
      net.stub("GET " + TIDES).answer(status(204)).flaky(0.5);
      Url.status(TIDES);
      throw new AssertionError("the desk gave up");
    }
  }

  @Test
  void conditionsOnGraphQlSayWhatTheyNeed() {
    var refused = assertThrows(IllegalStateException.class, Bodies::graphql);

    assertTrue(refused.getMessage().contains("com.graphql-java:graphql-java"));
  }

  @Test
  void stubsAndCallsStayInTheirScope() {
    allSucceed(Engine.run(Scoped.class), 4);
  }

  @Test
  void anAnnotatedMethodIsInterceptedAlone() {
    allSucceed(Engine.run(OneMethod.class), 2);
  }

  @Test
  void anUnexpectedCallFailsItsTestAndNoOther() {
    EngineExecutionResults results = Engine.run(Unexpected.class);

    results.testEvents().assertStatistics(events -> events.succeeded(1).failed(1));
    assertEquals(1, Engine.failures(results).size());
    assertTrue(Engine.failures(results).get(0).startsWith("Unexpected call: "));
  }

  @Test
  void anUnexpectedCallBeforeAllTestsFailsTheClass() {
    EngineExecutionResults results = Engine.run(UnexpectedBeforeAll.class);

    results.testEvents().assertStatistics(events -> events.succeeded(1).failed(0));
    results.containerEvents().assertStatistics(events -> events.failed(1));
  }

  @Test
  void aFailureOfTheTestComesFirst() {
    List<String> failures = Engine.failures(Engine.run(FailsAndCalls.class));

    assertEquals(List.of("the desk is closed"), failures);
  }

  @Test
  void aParameterBeforeInterceptionIsExplained() {
    List<String> failures = Engine.failures(Engine.run(TooEarly.class));

    assertTrue(failures.get(0).contains("Fix: annotate the class with @InterceptHttp"));
  }

  @Test
  void everythingIsClosedAfterwards() {
    Engine.run(Scoped.class, OneMethod.class, Unexpected.class, UnexpectedBeforeAll.class);

    Cachette.open().close();
  }

  private static void allSucceed(EngineExecutionResults results, int tests) {
    assertEquals(List.of(), Engine.failures(results));
    results.testEvents().assertStatistics(events -> events.succeeded(tests).failed(0));
  }

  @InterceptHttp
  @TestMethodOrder(MethodOrderer.OrderAnnotation.class)
  static class Scoped {

    static Cachette ofTheClass;

    @BeforeAll
    static void baseline(Cachette net) {
      ofTheClass = net;
      net.stub("GET " + TIDES).answer(status(200), status(299));
    }

    @BeforeEach
    void noCallsYet(Cachette net) {
      assertSame(ofTheClass, net);
      net.calls().assertNone();
    }

    @Test
    @Order(1)
    void overrides(Cachette net) {
      net.stub("GET " + TIDES).answer(status(404));
      assertEquals(404, Url.status(TIDES));
      net.calls().assertCount(1);
    }

    @Test
    @Order(2)
    void seesTheBaselineAgain() {
      assertEquals(200, Url.status(TIDES));
      assertEquals(299, Url.status(TIDES));
    }

    @Test
    @Order(3)
    void seesItFromItsFirstAnswer() {
      assertEquals(200, Url.status(TIDES));
    }

    @Nested
    class Inner {

      @BeforeEach
      void more(Cachette net) {
        net.stub("GET https://berths.example/v1").answer(status(201));
      }

      @Test
      void seesTheBaselineOfTheOuterClass() {
        assertEquals(200, Url.status(TIDES));
        assertEquals(201, Url.status("https://berths.example/v1"));
      }
    }

    @AfterEach
    void stillOpen(Cachette net) {
      assertTrue(net.calls().stream().count() > 0);
    }

    @AfterAll
    static void theCallsOfTheTestsAreGone(Cachette net) {
      net.calls().assertNone();
    }
  }

  static class OneMethod {

    @Test
    @InterceptHttp
    void intercepted(Cachette net) {
      net.stub("GET " + TIDES).answer(status(204));
      assertEquals(204, Url.status(TIDES));
    }

    @Test
    void notIntercepted() {
      assertEquals(-1, Url.status(TIDES));
    }
  }

  @InterceptHttp
  static class Unexpected {

    @Test
    void swallowsTheError() {
      assertEquals(501, Url.status(TIDES));
    }

    @Test
    void callsNothing() {}
  }

  @InterceptHttp
  static class UnexpectedBeforeAll {

    @BeforeAll
    static void callsAlready() {
      Url.status(TIDES);
    }

    @Test
    void callsNothing() {}
  }

  @InterceptHttp
  static class FailsAndCalls {

    @Test
    void fails() {
      Url.status(TIDES);
      throw new AssertionError("the desk is closed");
    }
  }

  @InterceptHttp(unusedStubs = UnusedStubs.FAIL)
  static class Unused {

    @BeforeAll
    static void baseline(Cachette net) {
      net.stub("GET " + TIDES).named("used by one").answer(status(204));
      net.stub("GET /v1").named("used by none").answer(status(204));
    }

    @Test
    @Order(1)
    void uses() {
      Url.status(TIDES);
    }

    @Test
    @Order(2)
    void declaresAnUnusedStub(Cachette net) {
      net.stub("GET /v2").named("in vain").answer(status(204));
    }
  }

  @ExtendWith(OnlyTheParameter.class)
  static class TooEarly {

    TooEarly(Cachette net) {
      throw new AssertionError("never made, with " + net);
    }

    @Test
    void test() {}
  }

  /**
   * The extension with its first half cut off, as where another one creates test instances early.
   */
  static class OnlyTheParameter implements ParameterResolver {

    @Override
    public boolean supportsParameter(ParameterContext parameter, ExtensionContext context) {
      return CachetteExtension.with(Settings.defaults()).supportsParameter(parameter, context);
    }

    @Override
    public Object resolveParameter(ParameterContext parameter, ExtensionContext context) {
      return CachetteExtension.with(Settings.defaults()).resolveParameter(parameter, context);
    }
  }
}
