// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.internal.cases.file.CaseFile;
import dev.cachette.replay.CaseResult;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.DynamicTest;
import org.opentest4j.AssertionFailedError;
import org.slf4j.LoggerFactory;

/** Makes dynamic tests of cases; apart from the rest, which works without JUnit. */
final class CaseTests {

  private CaseTests() {}

  /** Returns a test for each case; its source is the file. */
  static Stream<DynamicNode> of(List<CaseFile> files, Function<CaseFile, CaseResult> replay) {
    return files.stream()
        .map(
            file ->
                DynamicTest.dynamicTest(
                    file.content().name(),
                    file.path().toAbsolutePath().toUri(),
                    () -> requireSame(replay.apply(file))));
  }

  private static void requireSame(CaseResult result) {
    if (result.updated()) {
      LoggerFactory.getLogger(Cases.class).warn(result.explanation());
    } else if (!result.isSame()) {
      throw new AssertionFailedError(result.explanation());
    }
  }
}
