// SPDX-License-Identifier: Apache-2.0
package dev.cachette.testng;

import dev.cachette.Cachette;
import java.util.Arrays;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jspecify.annotations.Nullable;
import org.testng.IClassListener;
import org.testng.IExecutionListener;
import org.testng.IInvokedMethod;
import org.testng.IInvokedMethodListener;
import org.testng.ITestClass;
import org.testng.ITestResult;
import org.testng.annotations.Listeners;

/**
 * Intercepts the outgoing HTTP calls of a TestNG class:
 *
 * <pre>{@code
 * @Listeners(CachetteListener.class)
 * public class BerthDeskTest {
 *
 *   @Test
 *   public void booksABerth() {
 *     CachetteListener.net().stub("POST https://berths.example/v1/bookings").answer(status(201));
 *     ...
 *   }
 * }
 * }</pre>
 *
 * <p>Interception begins before the {@code @BeforeClass} methods and ends after the
 * {@code @AfterClass} methods. Stubs declared in {@code @BeforeClass} are the baseline of every
 * test; the stubs and calls of a test, from its first {@code @BeforeMethod} on, are removed after
 * the test method. A test with a call that no stub answers fails itself; the tests after it run.
 * Such a call in {@code @AfterMethod} or {@code @AfterClass} fails the run, after all tests.
 *
 * <p>TestNG applies listeners to the whole suite; this one ignores classes without the annotation.
 * The settings are in a static field of type {@link dev.cachette.Settings}, if the class has one,
 * and in system properties, see {@link dev.cachette.Settings#withProperties}.
 *
 * <p>Interception is for the whole JVM: tests with this listener that run in parallel fail with an
 * exception that says so. Thread-safe.
 */
public final class CachetteListener
    implements IClassListener, IInvokedMethodListener, IExecutionListener {

  /** Failures at the end of classes, thrown when everything has run. */
  private static final Queue<AssertionError> LATER = new ConcurrentLinkedQueue<>();

  private static volatile @Nullable ClassSession session;

  /** For TestNG. */
  public CachetteListener() {}

  /**
   * Returns the Cachette of the test class that runs.
   *
   * @throws IllegalStateException if none runs that has this listener
   */
  public static Cachette net() {
    ClassSession running = session;
    if (running == null) {
      throw new IllegalStateException(
          "No test class with CachetteListener is running. Fix: annotate the class with"
              + " @Listeners(CachetteListener.class).");
    }
    return running.net();
  }

  @Override
  public void onBeforeClass(ITestClass test) {
    Class<?> type = test.getRealClass();
    if (isListened(type)) {
      synchronized (CachetteListener.class) {
        if (session == null) {
          session = ClassSession.open(type);
        }
      }
    }
  }

  @Override
  public void onAfterClass(ITestClass test) {
    ClassSession running = session;
    if (running != null && running.isOf(test.getRealClass())) {
      session = null;
      try {
        running.close();
      } catch (AssertionError failure) {
        // Thrown here, it would end the run.
        LATER.add(failure);
      } catch (IllegalStateException misuse) {
        LATER.add(new AssertionError(misuse.getMessage(), misuse));
      }
    }
  }

  @Override
  public void onExecutionFinish() {
    AssertionError failure = LATER.poll();
    if (failure != null) {
      LATER.forEach(failure::addSuppressed);
      LATER.clear();
      throw failure;
    }
  }

  @Override
  public void beforeInvocation(IInvokedMethod method, ITestResult result) {
    Class<?> type = result.getTestClass().getRealClass();
    if (!isListened(type)) {
      return;
    }
    ClassSession running = session;
    if (running == null || !running.isOf(type)) {
      throw new IllegalStateException(ClassSession.inParallel(type.getName()));
    }
    running.before(method);
  }

  @Override
  public void afterInvocation(IInvokedMethod method, ITestResult result) {
    ClassSession running = session;
    if (running != null && running.isOf(result.getTestClass().getRealClass())) {
      running.after(method, result);
    }
  }

  /** Returns true if the class, or one that it extends, has this listener. */
  private static boolean isListened(Class<?> type) {
    Listeners listeners = type.getAnnotation(Listeners.class);
    return listeners != null && Arrays.asList(listeners.value()).contains(CachetteListener.class);
  }
}
