// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import org.junit.jupiter.api.extension.BeforeTestExecutionCallback;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;

/** A cassette or stub file has no effect without interception; reports that, at the end. */
final class AnnotationCheck implements BeforeTestExecutionCallback {

  /** For JUnit. */
  AnnotationCheck() {}

  @Override
  public void beforeTestExecution(ExtensionContext context) {
    if (Interval.current(context).isEmpty()) {
      throw new ExtensionConfigurationException(
          "@Cassette or @Stubs on "
              + context.getRequiredTestMethod()
              + " has no effect: nothing is intercepted. Fix: annotate the class with"
              + " @InterceptHttp, too.");
    }
  }
}
