package dev.cachette.junit;

import org.junit.jupiter.api.extension.BeforeTestExecutionCallback;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;

/** A cassette alone does nothing; says so, when everything that could be open is. */
final class CassetteCheck implements BeforeTestExecutionCallback {

  /** For JUnit. */
  CassetteCheck() {}

  @Override
  public void beforeTestExecution(ExtensionContext context) {
    if (Interval.current(context).isEmpty()) {
      throw new ExtensionConfigurationException(
          "@Cassette on "
              + context.getRequiredTestMethod()
              + " has no calls to answer: nothing is intercepted. "
              + "Mend: annotate the class with @InterceptHttp, too.");
    }
  }
}
