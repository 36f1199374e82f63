// SPDX-License-Identifier: Apache-2.0
package dev.cachette.testng;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.testng.ITestListener;
import org.testng.ITestResult;
import org.testng.TestNG;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Listeners;
import org.testng.xml.XmlSuite.ParallelMode;

/** Runs TestNG classes with the listener, and reads their results. */
class CachetteListenerTest {

  private static final String TIDES = "https://tides.example/v1";

  @Test
  void theTestWithTheUnexpectedCallFailsAndTheRestRuns() {
    Results results = Results.of(ParallelMode.NONE, Desk.class, Plain.class);

    assertEquals(
        List.of("before", "expects an exception", "last", "row 1", "row 2", "uninvolved"),
        results.passed());
    assertEquals(List.of("culprit", "fails by itself"), List.copyOf(results.failed.keySet()));
    Throwable unexpected = results.failed.get("culprit");
    assertTrue(unexpected.getMessage().startsWith("Unexpected call: "), unexpected::toString);
    Throwable own = results.failed.get("fails by itself");
    assertEquals("the desk is closed", own.getMessage());
    assertTrue(
        own.getSuppressed()[0].getMessage().startsWith("Unexpected call: "),
        own.getSuppressed()[0]::toString);
    assertEquals(List.of(), results.skipped);
  }

  @Test
  void anUnexpectedCallAfterATestDoesNotStopTheOtherClasses() {
    Results results = new Results();

    AssertionError failure =
        assertThrows(
            AssertionError.class, () -> results.run(ParallelMode.NONE, Untidy.class, Plain.class));

    assertTrue(failure.getMessage().startsWith("Unexpected call: "), failure::toString);
    assertEquals(List.of("first", "second", "uninvolved"), results.passed());
  }

  @Test
  void settingsComeFromTheField() {
    Results results = Results.of(ParallelMode.NONE, Configured.class);

    assertTrue(
        results.failed.get("unused").getMessage().startsWith("1 unused stub:"),
        results.failed::toString);
  }

  @Test
  void parallelTestsFailWithTheReason() {
    Results results = Results.of(ParallelMode.METHODS, Parallel.class);

    assertTrue(!results.failed.isEmpty(), "no two tests ran at once");
    results
        .failed
        .values()
        .forEach(
            failure ->
                assertTrue(
                    failure.getMessage().contains("runs in parallel with other tests"),
                    failure::toString));
  }

  @Test
  void outsideOfATestItIsRefused() {
    IllegalStateException refused =
        assertThrows(IllegalStateException.class, CachetteListener::net);
    assertTrue(refused.getMessage().contains("@Listeners(CachetteListener.class)"));
  }

  private static int get(String url) {
    try {
      HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
      return connection.getResponseCode();
    } catch (IOException failed) {
      return -1;
    }
  }

  @Listeners(CachetteListener.class)
  public static class Desk {

    @BeforeClass
    public void baseline() {
      CachetteListener.net().stub("GET " + TIDES).answer(status(200), status(299));
    }

    @BeforeMethod
    public void each() {
      CachetteListener.net().stub("GET " + TIDES + "/each").answer(status(201));
    }

    @AfterMethod
    public void after() {
      CachetteListener.net().calls().assertNone();
    }

    @org.testng.annotations.Test(priority = 1, testName = "before")
    public void before() {
      assertEquals(200, get(TIDES));
      assertEquals(201, get(TIDES + "/each"));
      CachetteListener.net().calls().assertCount(2);
    }

    @org.testng.annotations.Test(priority = 2, testName = "culprit")
    public void culprit() {
      get(TIDES + "/nothing");
    }

    @org.testng.annotations.Test(priority = 3, testName = "fails by itself")
    public void failsByItself() {
      get(TIDES + "/nothing");
      throw new AssertionError("the desk is closed");
    }

    @org.testng.annotations.Test(
        priority = 4,
        testName = "expects an exception",
        expectedExceptions = IllegalStateException.class)
    public void expectsAnException() {
      throw new IllegalStateException("as expected");
    }

    @DataProvider
    public Object[][] rows() {
      return new Object[][] {{1}, {2}};
    }

    @org.testng.annotations.Test(priority = 5, testName = "row", dataProvider = "rows")
    public void rows(int row) {
      assertEquals(200, get(TIDES), "each row starts afresh: " + row);
      CachetteListener.net().calls().assertCount(1);
    }

    @org.testng.annotations.Test(priority = 6, testName = "last")
    public void last() {
      assertEquals(200, get(TIDES));
    }
  }

  @Listeners(CachetteListener.class)
  public static class Untidy {

    @AfterMethod
    public void after() {
      get(TIDES + "/nothing");
    }

    @org.testng.annotations.Test(testName = "first")
    public void first() {}

    @org.testng.annotations.Test(testName = "second")
    public void second() {}
  }

  /** Has no listener, though the suite has. */
  public static class Plain {

    @org.testng.annotations.Test(testName = "uninvolved")
    public void uninvolved() {
      assertThrows(IllegalStateException.class, CachetteListener::net);
    }
  }

  @Listeners(CachetteListener.class)
  public static class Configured {

    static final Settings SETTINGS = Settings.defaults().unusedStubs(UnusedStubs.FAIL);

    @org.testng.annotations.Test(testName = "unused")
    public void unused() {
      CachetteListener.net().stub("GET " + TIDES).answer(status(200));
    }
  }

  @Listeners(CachetteListener.class)
  public static class Parallel {

    private static final CountDownLatch OTHER_FAILED = new CountDownLatch(1);

    @org.testng.annotations.Test(testName = "one")
    public void one() throws Exception {
      OTHER_FAILED.await(20, TimeUnit.SECONDS);
    }

    @org.testng.annotations.Test(testName = "two")
    public void two() throws Exception {
      OTHER_FAILED.await(20, TimeUnit.SECONDS);
    }
  }

  /** The results that TestNG reports. */
  private static final class Results implements ITestListener {

    private final List<String> passed = new ArrayList<>();
    private final List<String> skipped = new ArrayList<>();
    private final Map<String, Throwable> failed = new TreeMap<>();

    static Results of(ParallelMode mode, Class<?>... classes) {
      Results results = new Results();
      results.run(mode, classes);
      return results;
    }

    void run(ParallelMode mode, Class<?>... classes) {
      TestNG testng = new TestNG(false);
      testng.setVerbose(0);
      testng.setParallel(mode);
      testng.setThreadCount(2);
      testng.setTestClasses(classes);
      testng.addListener(this);
      testng.run();
    }

    List<String> passed() {
      return passed.stream().sorted().toList();
    }

    private static String name(ITestResult result) {
      String name =
          result
              .getMethod()
              .getConstructorOrMethod()
              .getMethod()
              .getAnnotation(org.testng.annotations.Test.class)
              .testName();
      return result.getParameters().length == 0 ? name : name + " " + result.getParameters()[0];
    }

    @Override
    public synchronized void onTestSuccess(ITestResult result) {
      passed.add(name(result));
    }

    @Override
    public synchronized void onTestFailure(ITestResult result) {
      failed.put(name(result), result.getThrowable());
      Parallel.OTHER_FAILED.countDown();
    }

    @Override
    public synchronized void onTestSkipped(ITestResult result) {
      skipped.add(name(result));
    }
  }
}
