// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static dev.cachette.Factories.json;
import static dev.cachette.Factories.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.DynamicContainer.dynamicContainer;
import static org.junit.jupiter.api.DynamicTest.dynamicTest;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;
import org.junit.platform.testkit.engine.EngineExecutionResults;
import org.junit.platform.testkit.engine.Event;

/** Dynamic tests: each has its own calls, scope and cassette, and is named by its failure. */
class DynamicTestsTest {

  private static final String TIDES = "https://tides.example/v1";

  /** Where the cassettes of the tests below are; they are made by JUnit's engine in this JVM. */
  private static Path folder;

  /** Where the real tides desk of the tests below is. */
  private static String address = "";

  @Test
  void eachHasItsOwnScope() {
    EngineExecutionResults results = Engine.run(Scoped.class);

    assertEquals(List.of(), Engine.failures(results));
    results.testEvents().assertStatistics(events -> events.succeeded(4));
  }

  @Test
  void theFailureNamesTheDynamicTest() {
    EngineExecutionResults results = Engine.run(Failing.class);

    List<String> failed =
        results.testEvents().failed().stream()
            .map(Event::getTestDescriptor)
            .map(test -> test.getDisplayName())
            .toList();
    assertEquals(List.of("calls what nobody stubbed"), failed);
    results.testEvents().assertStatistics(events -> events.succeeded(2).failed(1));
    assertTrue(Engine.failures(results).get(0).startsWith("Unexpected call: "));
  }

  @Test
  void eachHasItsOwnCassette(@TempDir Path temporary) throws Exception {
    folder = temporary;
    try (Cachette real = Cachette.open(Settings.defaults().withoutInterception())) {
      real.stub("GET /v1/{day}").answer(json("{\"high\": \"04:10\"}"));
      address = real.baseUrl();
      assertEquals(List.of(), Engine.failures(Engine.run(Recorded.class)));
    }
    String name = Recorded.class.getName().replace('$', '/');
    for (String cassette : List.of(name + "/perDay-1", name + "/perDay-2", "arrival-1")) {
      assertTrue(Files.exists(folder.resolve(cassette + ".har")), cassette);
    }
  }

  @InterceptHttp
  static class Scoped {

    @TestFactory
    Stream<DynamicNode> tests(Cachette net) {
      net.stub("GET " + TIDES).answer(status(200), status(299));
      return Stream.of(
          dynamicTest("first", () -> startsAfresh(net)),
          dynamicTest("second", () -> startsAfresh(net)),
          dynamicContainer(
              "inner",
              Stream.of(
                  dynamicTest("third", () -> startsAfresh(net)),
                  dynamicTest("fourth", () -> startsAfresh(net)))));
    }

    private static void startsAfresh(Cachette net) throws Exception {
      net.calls().assertNone();
      assertEquals(200, Url.status(TIDES));
      net.stub("GET " + TIDES + "/own").answer(status(204));
      assertEquals(204, Url.status(TIDES + "/own"));
      net.calls().assertCount(2);
    }
  }

  @InterceptHttp
  static class Failing {

    @TestFactory
    Stream<DynamicNode> tests(Cachette net) {
      return Stream.of(
          dynamicTest("before", () -> net.calls().assertNone()),
          dynamicTest("calls what nobody stubbed", () -> Url.status(TIDES)),
          dynamicTest("after", () -> net.calls().assertNone()));
    }
  }

  static class Recorded {

    @RegisterExtension
    static final CachetteExtension CACHETTE =
        CachetteExtension.with(
            Settings.defaults()
                .cassetteFolder(folder == null ? Path.of("target") : folder)
                .cassettes(CassetteSettings.defaults().recordingInCi())
                .realServiceAt(
                    "http://tides.example", address.isEmpty() ? "http://127.0.0.1:1" : address));

    @Cassette
    @TestFactory
    Stream<DynamicNode> perDay() {
      return Stream.of(
          dynamicTest("2 April", () -> read("2")), dynamicTest("3 April", () -> read("3")));
    }

    @Cassette("arrival")
    @TestFactory
    Stream<DynamicNode> arrival() {
      return Stream.of(dynamicTest("2 April", () -> read("2")));
    }

    private static void read(String day) throws Exception {
      assertEquals(200, Url.status("http://tides.example/v1/" + day));
    }
  }
}
