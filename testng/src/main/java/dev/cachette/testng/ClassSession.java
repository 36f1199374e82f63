// SPDX-License-Identifier: Apache-2.0
package dev.cachette.testng;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.lang.reflect.Method;
import org.jspecify.annotations.Nullable;
import org.testng.IInvokedMethod;
import org.testng.ITestNGMethod;
import org.testng.ITestResult;

/** Interception for one test class, with a scope for each test. */
final class ClassSession {

  private final Class<?> type;
  private final Cachette net;
  private @Nullable Thread thread;
  private Cachette.@Nullable Scope scope;

  private ClassSession(Class<?> type, Cachette net) {
    this.type = type;
    this.net = net;
  }

  static ClassSession open(Class<?> type) {
    Settings settings = SettingsField.of(type).withProperties(System::getProperty);
    return new ClassSession(type, Cachette.open(settings.name(type.getName())));
  }

  static String inParallel(String test) {
    return test
        + " runs in parallel with other tests that intercept HTTP calls. Interception is for the"
        + " whole JVM. Fix: run these tests with parallel=\"none\".";
  }

  boolean isOf(Class<?> other) {
    return type.equals(other);
  }

  Cachette net() {
    return net;
  }

  /** Begins the scope of a test, at its first set-up method or at the test itself. */
  synchronized void before(IInvokedMethod method) {
    ITestNGMethod called = method.getTestMethod();
    if (!method.isTestMethod() && !called.isBeforeMethodConfiguration()) {
      return;
    }
    if (scope != null && thread != Thread.currentThread()) {
      throw new IllegalStateException(inParallel(called.getQualifiedName()));
    }
    if (scope == null) {
      thread = Thread.currentThread();
      Method test = called.getConstructorOrMethod().getMethod();
      scope =
          method.isTestMethod()
              ? net.scope(test.getDeclaringClass().getName(), test.getName())
              : net.scope();
    }
  }

  /** Ends the scope of a test, and fails the test if a call was unexpected. */
  synchronized void after(IInvokedMethod method, ITestResult result) {
    Cachette.Scope ended = scope;
    if (!method.isTestMethod() || ended == null || thread != Thread.currentThread()) {
      return;
    }
    scope = null;
    Throwable own = result.getStatus() == ITestResult.SUCCESS ? null : result.getThrowable();
    if (own != null) {
      net.markFailed(own);
    }
    try {
      ended.close();
    } catch (RuntimeException | Error failure) {
      if (own == null) {
        result.setStatus(ITestResult.FAILURE);
        result.setThrowable(failure);
      } else {
        own.addSuppressed(failure);
      }
    }
  }

  void close() {
    net.close();
  }
}
