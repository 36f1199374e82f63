// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import java.util.List;
import java.util.Map;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.testkit.engine.EngineExecutionResults;
import org.junit.platform.testkit.engine.EngineTestKit;

/** Runs test classes as JUnit would, and says how they ended. */
final class Engine {

  private Engine() {}

  static EngineExecutionResults run(Class<?>... classes) {
    return run(Map.of(), classes);
  }

  static EngineExecutionResults run(Map<String, String> parameters, Class<?>... classes) {
    EngineTestKit.Builder kit = EngineTestKit.engine("junit-jupiter");
    for (Class<?> type : classes) {
      kit.selectors(selectClass(type));
    }
    parameters.forEach(kit::configurationParameter);
    return kit.execute();
  }

  /** Returns the messages of all failures, of tests and of classes. */
  static List<String> failures(EngineExecutionResults results) {
    return results.allEvents().finished().stream()
        .flatMap(event -> event.getPayload(TestExecutionResult.class).stream())
        .flatMap(result -> result.getThrowable().stream())
        .map(Throwable::getMessage)
        .toList();
  }
}
