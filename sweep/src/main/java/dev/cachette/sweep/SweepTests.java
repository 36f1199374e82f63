// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep;

import dev.cachette.internal.sweep.Sweeper;
import dev.cachette.internal.text.Failed;
import dev.cachette.sweep.result.SweepResult;
import dev.cachette.sweep.result.SweptRun;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicContainer;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.DynamicTest;

/** Makes dynamic tests of runs; apart from the rest, which works without JUnit. */
final class SweepTests {

  private SweepTests() {}

  /** Returns a container for each call, and a test with the table. */
  static <T> Stream<DynamicNode> of(String name, Sweeper<T> sweeper) {
    List<Sweeper<T>.Planned> runs = sweeper.learn();
    List<SweptRun> done = new ArrayList<>();
    Map<String, List<DynamicTest>> byCall = new LinkedHashMap<>();
    for (Sweeper<T>.Planned run : runs) {
      byCall
          .computeIfAbsent(run.call(), unused -> new ArrayList<>())
          .add(
              DynamicTest.dynamicTest(
                  run.fault(),
                  () -> {
                    SweptRun result = run.run();
                    done.add(result);
                    result.assertRight();
                  }));
    }
    Stream<DynamicNode> calls =
        byCall.entrySet().stream()
            .map(it -> DynamicContainer.dynamicContainer(it.getKey(), it.getValue()));
    return Stream.concat(
        calls,
        Stream.of(
            DynamicTest.dynamicTest(
                "all of them",
                () -> requireRight(new SweepResult(name, done, sweeper.omitted())))));
  }

  /** Fails with the table only: the findings of each run are in its own test. */
  private static void requireRight(SweepResult result) {
    if (!result.wrong().isEmpty()) {
      throw Failed.of(result + ".\n\n" + result.table());
    }
  }
}
