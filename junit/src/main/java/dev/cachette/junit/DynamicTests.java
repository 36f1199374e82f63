// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.lang.reflect.Method;
import java.util.function.Supplier;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.InvocationInterceptor.Invocation;
import org.junit.platform.commons.support.AnnotationSupport;

/** Runs each dynamic test of a factory in a scope of its own. */
final class DynamicTests {

  private DynamicTests() {}

  /** Returns true if the context is that of a test factory, around its dynamic tests. */
  static boolean isFactory(ExtensionContext context) {
    return context
        .getTestMethod()
        .filter(method -> AnnotationSupport.isAnnotated(method, TestFactory.class))
        .isPresent();
  }

  static void run(
      Invocation<Void> invocation,
      ExtensionContext context,
      Cachette net,
      Supplier<Settings> settings)
      throws Throwable {
    Method factory = factory(context).getRequiredTestMethod();
    String className = factory.getDeclaringClass().getName();
    try (Cachette.Scope scope = net.scope(className, factory.getName())) {
      try {
        AnnotatedCassettes.ofTest(context, settings.get(), net);
        invocation.proceed();
      } catch (Throwable failure) {
        net.markFailed(failure);
        throw failure;
      }
    }
  }

  /**
   * Returns the context of the factory for that of a dynamic test, which knows neither class nor
   * method; any other context as it is.
   */
  static ExtensionContext factory(ExtensionContext context) {
    ExtensionContext place = context;
    while (place.getTestClass().isEmpty() && place.getParent().isPresent()) {
      place = place.getParent().get();
    }
    return place;
  }
}
