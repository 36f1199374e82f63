// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.platform.commons.support.AnnotationSupport.findRepeatableAnnotations;

import java.lang.reflect.AnnotatedElement;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.parallel.ResourceLock;

/**
 * Checks that intercepting tests hold the lock if JUnit runs tests in parallel. Waiting here
 * instead could deadlock: JUnit's threads run other tests while they wait.
 */
final class ParallelExecution {

  private static final String PARALLEL = "junit.jupiter.execution.parallel.enabled";

  private ParallelExecution() {}

  static void requireLock(ExtensionContext context) {
    boolean parallel =
        context.getConfigurationParameter(PARALLEL).map(Boolean::parseBoolean).orElse(false);
    if (parallel && !isLocked(context)) {
      throw new ExtensionConfigurationException(
          String.format(
              "%s intercepts without the lock, but tests run in parallel (%s is true). Fix:"
                  + " annotate the class with @ResourceLock(InterceptHttp.LOCK), or use"
                  + " @InterceptHttp instead of the field.",
              context.getRequiredTestClass().getName(), PARALLEL));
    }
  }

  private static boolean isLocked(ExtensionContext context) {
    return context.getElement().filter(ParallelExecution::isLocked).isPresent()
        || context.getParent().filter(ParallelExecution::isLocked).isPresent();
  }

  private static boolean isLocked(AnnotatedElement element) {
    return findRepeatableAnnotations(element, ResourceLock.class).stream()
        .anyMatch(lock -> lock.value().equals(InterceptHttp.LOCK));
  }
}
