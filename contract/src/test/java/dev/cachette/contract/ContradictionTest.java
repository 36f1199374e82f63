// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.json;
import static dev.cachette.Factories.status;
import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.answer.Answer;
import dev.cachette.junit.InterceptHttp;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.testkit.engine.EngineTestKit;
import org.junit.platform.testkit.engine.Events;
import org.opentest4j.AssertionFailedError;

/** Two tests that rely on different answers to one request. */
class ContradictionTest {

  @TempDir private Path folder;

  static Stream<Arguments> contradictions() {
    return Stream.of(
        Arguments.of(
            "type", json("{\"a\":1}"), json("{\"a\":\"1\"}"), "$.a", "an integer", "a string"),
        Arguments.of(
            "deeper",
            json("{\"a\":{\"b\":[]}}"),
            json("{\"a\":{\"b\":{}}}"),
            "$.a.b",
            "an array",
            "an object"),
        Arguments.of(
            "elements",
            json("[{\"a\":1}]"),
            json("[{\"a\":true}]"),
            "$[*].a",
            "an integer",
            "a boolean"),
        Arguments.of("whole", json("[]"), json("{}"), "$", "an array", "an object"),
        Arguments.of("status", json("{}"), status(404), "status", "200", "404"),
        Arguments.of("no content", json("{}"), status(204), "status", "200", "204"));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("contradictions")
  void theLaterTestFailsAndNamesBoth(
      String name, Answer one, Answer other, String place, String left, String right) {
    session("harbour.FirstTest", one, "");

    AssertionFailedError failure =
        assertThrows(AssertionFailedError.class, () -> session("harbour.SecondTest", other, ""));

    String text = failure.getMessage();
    for (String part :
        new String[] {place, left, right, "FirstTest", "SecondTest", "ContradictionTest.java:"}) {
      assertTrue(text.contains(part), text);
    }
    assertTrue(
        text.startsWith("Tests contradict each other in the contract of harbour-desk with berths"),
        text);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("contradictions")
  void inAnotherStateItIsNone(String name, Answer one, Answer other) {
    session("harbour.FirstTest", one, "a berth is free");
    assertDoesNotThrow(() -> session("harbour.SecondTest", other, "no berth is free"));

    assertEquals(2, Recording.text(folder).split("- name:").length - 1);
  }

  static Stream<Arguments> agreements() {
    return Stream.of(
        Arguments.of("values", json("{\"a\":1}"), json("{\"a\":2}"), 1),
        Arguments.of("integer and number", json("{\"a\":1}"), json("{\"a\":1.5}"), 1),
        Arguments.of("null and value", json("{\"a\":null}"), json("{\"a\":1.5}"), 1),
        Arguments.of("more members", json("{\"a\":1}"), json("{\"a\":1,\"b\":2}"), 1),
        Arguments.of("other members", json("{\"a\":1}"), json("{\"b\":2}"), 2),
        Arguments.of("empty and filled", json("[]"), json("[{\"a\":1}]"), 1),
        Arguments.of("errors of the provider", json("{}"), status(500), 1));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("agreements")
  void whatAProviderCanDoIsNone(String name, Answer one, Answer other, int clauses) {
    session("harbour.FirstTest", one, "");
    session("harbour.SecondTest", other, "");

    assertEquals(
        clauses, Recording.text(folder).split("- name:").length - 1, Recording.text(folder));
  }

  /** An array by places allows no further element, and may still be null for one of the tests. */
  @Test
  void anArrayByPlacesThatOneTestAllowsToBeNullIsNone() {
    Answer answer = json("{\"a\":[\"x\",1]}");
    session("harbour.FirstTest", answer, "");
    Recording.plainSession(
        folder,
        "harbour.SecondTest",
        (net, contract) -> {
          Stub stub = net.stub("GET http://berths.example/v1/berths").answer(answer);
          contract.clause(stub).nullable("$.a");
          new Desk(Desk.PLAIN_BERTHS).get("/v1/berths");
        });

    String text = Recording.text(folder);
    assertEquals(1, text.split("- name:").length - 1, text);
    assertTrue(text.contains("items: false"), text);
    assertFalse(text.contains("null"), text);
  }

  /** The order of the classes makes no difference, not even to a byte. */
  @ParameterizedTest(name = "{0}")
  @MethodSource("agreements")
  void theOrderMakesNoDifference(String name, Answer one, Answer other) throws Exception {
    Path second = Files.createDirectory(folder.resolve("second"));
    Recording.plainSession(
        folder, "harbour.FirstTest", (net, contract) -> once(net, contract, one, ""));
    Recording.plainSession(
        folder, "harbour.SecondTest", (net, contract) -> once(net, contract, other, ""));
    Recording.plainSession(
        second, "harbour.SecondTest", (net, contract) -> once(net, contract, other, ""));
    Recording.plainSession(
        second, "harbour.FirstTest", (net, contract) -> once(net, contract, one, ""));

    assertEquals(Recording.text(folder), Recording.text(second));
  }

  /** The settings of the class below. */
  static class Folder implements Supplier<Settings> {

    private static Path folder;

    @Override
    public Settings get() {
      return Settings.defaults().contractFolder(folder);
    }
  }

  /** Two tests of a class, each of which passes. */
  @InterceptHttp(settings = Folder.class)
  static class BothInOneClass {

    @BeforeAll
    static void contract(Cachette net) {
      Contracts.record(net, "harbour-desk", "berths", Desk.PLAIN_BERTHS);
    }

    @Test
    void readsNumbers(Cachette net) {
      net.stub("GET http://berths.example/v1/berths/{berth}").answer(json("{\"length\":30}"));
      new Desk(Desk.PLAIN_BERTHS).get("/v1/berths/1");
    }

    @Test
    void readsStrings(Cachette net) {
      net.stub("GET http://berths.example/v1/berths/{berth}").answer(json("{\"length\":\"30\"}"));
      new Desk(Desk.PLAIN_BERTHS).get("/v1/berths/2");
    }
  }

  @Test
  void theClassFailsIfBothAreInIt() {
    Folder.folder = folder;

    Events all =
        EngineTestKit.engine("junit-jupiter")
            .selectors(selectClass(BothInOneClass.class))
            .execute()
            .allEvents();

    assertEquals(0, all.failed().stream().filter(it -> it.getTestDescriptor().isTest()).count());
    String failure =
        all.finished().stream()
            .flatMap(it -> it.getPayload(TestExecutionResult.class).stream())
            .flatMap(it -> it.getThrowable().stream())
            .map(Throwable::getMessage)
            .findFirst()
            .orElse("");
    assertTrue(failure.contains("$.length"), failure);
    assertTrue(failure.contains("BothInOneClass.readsNumbers"), failure);
    assertTrue(failure.contains("BothInOneClass.readsStrings"), failure);
  }

  @Test
  void otherClassesDoNotFail() {
    session("harbour.FirstTest", json("{\"a\":1}"), "");
    assertThrows(
        AssertionFailedError.class, () -> session("harbour.SecondTest", json("{\"a\":\"1\"}"), ""));

    assertDoesNotThrow(() -> session("harbour.ThirdTest", json("[]"), "another state"));
  }

  @Test
  void theFileIsNotWrittenAndIsWrittenOnceTheTestIsCorrected() throws Exception {
    session("harbour.FirstTest", json("{\"a\":1}"), "");
    String before = Recording.text(folder);
    assertThrows(
        AssertionFailedError.class,
        () -> session("harbour.SecondTest", json("{\"a\":\"1\",\"b\":1}"), ""));
    assertEquals(before, Recording.text(folder));

    OtherJvm.run(folder, "harbour.SecondTest", "{\"a\":2,\"b\":1}");

    assertFalse(before.equals(Recording.text(folder)));
  }

  private void session(String name, Answer answer, String state) {
    Recording.plainSession(folder, name, (net, contract) -> once(net, contract, answer, state));
  }

  private static void once(Cachette net, ContractRecording contract, Answer answer, String state) {
    Stub stub = net.stub("GET http://berths.example/v1/berths").answer(answer);
    if (!state.isEmpty()) {
      contract.clause(stub).given(state);
    }
    new Desk(Desk.PLAIN_BERTHS).get("/v1/berths");
  }
}
