package dev.cachette.junit;

import org.junit.jupiter.api.extension.BeforeTestExecutionCallback;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;

/** A cassette or a stub file alone does nothing; says so, when everything that could be open is. */
final class AnnotationCheck implements BeforeTestExecutionCallback {

  /** For JUnit. */
  AnnotationCheck() {}

  @Override
  public void beforeTestExecution(ExtensionContext context) {
    if (Interval.current(context).isEmpty()) {
      throw new ExtensionConfigurationException(
          "@Cassette or @Stubs on "
              + context.getRequiredTestMethod()
              + " is for no calls: nothing is intercepted. "
              + "Mend: annotate the class with @InterceptHttp, too.");
    }
  }
}
