// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import dev.cachette.Cachette;
import dev.cachette.cases.HarbourDesk.Flaw;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.junit.platform.testkit.engine.EngineTestKit;
import org.junit.platform.testkit.engine.Events;

/** Cases as dynamic tests of JUnit, in the ways in which a test class can have them. */
class DynamicTestsTest {

  @TempDir Path folder;

  private static CapturedHarbour harbour;

  @BeforeEach
  void capture() throws Exception {
    harbour = new CapturedHarbour(folder);
    harbour.capture(
        it -> it,
        url -> {
          harbour.send(url + "/v1/arrivals/kittiwake", "");
          harbour.send(url + "/v1/berths", "{\"vessel\":\"Kittiwake\"}");
        });
    harbour.services().calls().clear();
  }

  @AfterEach
  void stop() {
    harbour.close();
    System.clearProperty(CaseReplay.PROPERTY);
  }

  static class OfAStream {
    @TestFactory
    Stream<DynamicNode> cases() {
      return harbour.replay().tests();
    }
  }

  static class OfTheReplayItself {
    @TestFactory
    CaseReplay cases() {
      return harbour.replay();
    }
  }

  @InterceptHttp
  static class Intercepting {
    @TestFactory
    Stream<DynamicNode> cases(Cachette net) {
      net.letThrough("elsewhere.example");
      return harbour.replay().tests();
    }
  }

  @ParameterizedTest
  @ValueSource(classes = {OfAStream.class, OfTheReplayItself.class, Intercepting.class})
  void eachCaseIsATest(Class<?> tests) {
    Events events = run(tests);

    assertEquals(2, events.succeeded().count(), () -> failures(events).toString());
    assertEquals(List.of(), harbour.services().calls());
  }

  @ParameterizedTest
  @ValueSource(classes = {OfAStream.class, OfTheReplayItself.class, Intercepting.class})
  void differenceFailsItsTestOnly(Class<?> tests) {
    harbour.desk().has(Flaw.CALL_DROPPED);

    Events events = run(tests);

    assertEquals(1, events.succeeded().count());
    assertEquals(1, events.failed().count());
    assertTrue(failures(events).get(0).contains("An outgoing call is missing"));
  }

  @ParameterizedTest
  @ValueSource(classes = {OfAStream.class, Intercepting.class})
  void filesAreUpdatedOnRequest(Class<?> tests) throws IOException {
    harbour.desk().has(Flaw.CALL_DROPPED, Flaw.MEMBER_CHANGED, Flaw.CALL_MEMBER_CHANGED);
    System.setProperty(CaseReplay.PROPERTY, "update");
    assertEquals(2, run(tests).succeeded().count());
    System.clearProperty(CaseReplay.PROPERTY);

    String now = Files.readString(folder.resolve("get-v1-arrivals-kittiwake.har"));
    assertTrue(now.contains("unknown"), now);
    assertFalse(now.contains("/v1/declarations"), now);
    Events after = run(tests);
    assertEquals(2, after.succeeded().count(), () -> failures(after).toString());
  }

  @ParameterizedTest
  @ValueSource(strings = {"CALL_EXTRA", "CALL_TO_OTHER_PATH"})
  void newCallsCannotBeUpdated(Flaw flaw) throws IOException {
    harbour.desk().has(flaw);
    String before = Files.readString(folder.resolve("get-v1-arrivals-kittiwake.har"));
    System.setProperty(CaseReplay.PROPERTY, "update");

    Events events = run(OfAStream.class);

    assertEquals(1, events.failed().count());
    assertTrue(failures(events).get(0).contains("capture the case again"));
    assertEquals(before, Files.readString(folder.resolve("get-v1-arrivals-kittiwake.har")));
  }

  private static Events run(Class<?> tests) {
    return EngineTestKit.engine("junit-jupiter")
        .selectors(selectClass(tests))
        .execute()
        .testEvents();
  }

  private static List<String> failures(Events events) {
    return events.failed().stream()
        .map(
            it ->
                it.getRequiredPayload(org.junit.platform.engine.TestExecutionResult.class)
                    .getThrowable()
                    .map(Throwable::getMessage)
                    .orElse(""))
        .toList();
  }
}
