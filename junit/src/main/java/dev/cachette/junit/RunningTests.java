// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import dev.cachette.RunningTest;
import java.util.ArrayDeque;
import java.util.Deque;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.support.descriptor.ClassSource;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;

/** Notes which tests run on which threads, so that the calls of parallel tests are kept apart. */
final class RunningTests implements TestExecutionListener {

  /** Ends the notes of this thread: while a test waits, JUnit may run another one on it. */
  private final ThreadLocal<Deque<RunningTest>> ends = ThreadLocal.withInitial(ArrayDeque::new);

  @Override
  public void executionStarted(TestIdentifier test) {
    if (test.isTest()) {
      ends.get().push(RunningTest.begin(name(test)));
    }
  }

  @Override
  public void executionFinished(TestIdentifier test, TestExecutionResult result) {
    if (test.isTest() && !ends.get().isEmpty()) {
      ends.get().pop().close();
    }
  }

  private static String name(TestIdentifier test) {
    return test.getSource()
        .map(
            source ->
                source instanceof MethodSource method
                    ? simple(method.getClassName()) + "." + method.getMethodName()
                    : source instanceof ClassSource type
                        ? simple(type.getClassName())
                        : test.getDisplayName())
        .orElseGet(test::getDisplayName);
  }

  private static String simple(String className) {
    return className.substring(className.lastIndexOf('.') + 1);
  }
}
