// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import dev.cachette.Stub;
import dev.cachette.verification.ClauseResult;
import dev.cachette.verification.ClauseResult.Outcome;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import org.junit.platform.testkit.engine.EngineTestKit;
import org.junit.platform.testkit.engine.Events;

/** How a provider is brought into states, asked, and left. */
class ContractVerificationTest {

  @TempDir private static Path folder;

  private static BerthService berths;

  @BeforeAll
  static void recordTheContract() {
    berths = new BerthService().answers(200, "{\"a\":1}", "content-type", "application/json");
    Recording.session(
        folder,
        "harbour.BerthDeskTest",
        (net, contract) -> {
          Stub one =
              net.stub("GET https://berths.example/v1/one?day=2031-04-02")
                  .named("one")
                  .answer(json("{\"a\":1}"));
          contract.clause(one).given("first").given("second", Map.of("berth", "B-12", "n", 3));
          net.stub("PUT https://berths.example/v1/two").named("two").answer(json("{\"a\":1}"));
          Desk desk = new Desk();
          desk.get("/v1/one?day=2031-04-02");
          desk.send(
              java.net.http.HttpRequest.newBuilder(java.net.URI.create(Desk.BERTHS + "/v1/two"))
                  .PUT(java.net.http.HttpRequest.BodyPublishers.ofString("plain text"))
                  .build());
        });
  }

  @AfterAll
  static void stop() {
    berths.close();
  }

  private static ContractVerification verification() {
    berths.requests().clear();
    return Contracts.in(folder).of("berths").against(berths.url());
  }

  @Test
  void theOrderOfAClause() {
    List<String> steps = new ArrayList<>();

    assertTrue(
        verification()
            .before(() -> steps.add("before"))
            .after(() -> steps.add("after"))
            .given("first", state -> steps.add("+1"), state -> steps.add("-1"))
            .given(
                "second",
                state -> steps.add("+2 " + state.text("berth") + " " + state.text("n")),
                state -> steps.add("-2"))
            .request(
                request -> {
                  steps.add(request.method());
                  return request;
                })
            .verify()
            .isMet());

    assertEquals(
        List.of("before", "+1", "+2 B-12 3", "GET", "-2", "-1", "after", "before", "PUT", "after"),
        steps);
    assertEquals(
        List.of("GET /v1/one?day=2031-04-02 null ", "PUT /v1/two null plain text"),
        berths.requests());
  }

  @Test
  void aStateWithoutAHandlerListsThoseThereAre() {
    List<String> steps = new ArrayList<>();
    ClauseResult result =
        verification()
            .given("first", state -> steps.add("+"), state -> steps.add("-"))
            .given("secnod", state -> {})
            .after(() -> steps.add("after"))
            .verify()
            .clauses()
            .get(0);

    assertEquals(Outcome.NOT_CHECKED, result.outcome());
    assertTrue(
        result
            .problem()
            .startsWith(
                "There is no handler for the state \"second\". Did you mean \"secnod\"?"
                    + " Handlers: \"first\", \"secnod\"."),
        result.problem());
    assertEquals(List.of("+", "-", "after", "after"), steps);
    assertEquals(1, berths.requests().size(), "the clause is not asked for");
  }

  @Test
  void failuresOfHandlersAndStepsAreTold() {
    ClauseResult thrown =
        verification()
            .given("first", state -> state.text("missing"))
            .given("second", state -> {})
            .verify()
            .clauses()
            .get(0);
    assertTrue(
        thrown
            .problem()
            .contains("The state \"first\" has no parameter \"missing\". It has: none."),
        thrown.problem());

    ClauseResult after =
        verification()
            .given(
                "first",
                state -> {},
                state -> {
                  throw new IllegalStateException("no way back");
                })
            .given("second", state -> {})
            .verify()
            .clauses()
            .get(0);
    assertEquals(Outcome.NOT_CHECKED, after.outcome());
    assertTrue(after.problem().contains("no way back"), after.problem());
  }

  @Test
  void statesAreSetByHttp() {
    try (BerthService states = new BerthService().answers(204, "")) {
      assertTrue(verification().givenBy(states.url() + "/state").verify().isMet());

      assertEquals(
          List.of(
              posted("first", "{}", "before"),
              posted("second", "{\"berth\":\"B-12\",\"n\":3}", "before"),
              posted("second", "{\"berth\":\"B-12\",\"n\":3}", "after"),
              posted("first", "{}", "after")),
          states.requests());

      states.answers(404, "unknown state");
      ClauseResult refused = verification().givenBy(states.url()).verify().clauses().get(0);
      assertTrue(
          refused.problem().contains("answered 404 to the state \"first\""), refused.problem());
      assertTrue(refused.problem().contains("unknown state"), refused.problem());
    }
  }

  private static String posted(String state, String parameters, String when) {
    return String.format(
        "POST /state null {\"state\":\"%s\",\"parameters\":%s,\"when\":\"%s\","
            + "\"consumer\":\"harbour-desk\",\"clause\":\"one\"}",
        state, parameters, when);
  }

  @Test
  void requestsAreChanged() {
    verification()
        .given("first", state -> {})
        .given("second", state -> {})
        .header("authorization", "Bearer made-up")
        .verify();

    assertEquals("PUT /v1/two Bearer made-up plain text", berths.requests().get(1));
  }

  @Test
  void aBasePathPrecedesThatOfTheRequest() {
    berths.requests().clear();
    Contracts.in(folder).of("berths").against(berths.url() + "/api/").verify();

    assertEquals("PUT /api/v1/two null plain text", berths.requests().get(0));
  }

  @Test
  void aProviderThatIsNotThereIsTold() {
    ClauseResult result =
        Contracts.in(folder).of("berths").against("http://localhost:1").verify().clauses().get(1);

    assertEquals(Outcome.NOT_CHECKED, result.outcome());
    assertTrue(
        result.problem().startsWith("http://localhost:1 cannot be reached"), result.problem());
  }

  @Test
  void aProviderThatDoesNotAnswerIsTold() throws Exception {
    try (java.net.ServerSocket silent = new java.net.ServerSocket(0)) {
      ClauseResult result =
          Contracts.in(folder)
              .of("berths")
              .against("http://localhost:" + silent.getLocalPort())
              .timeout(Duration.ofMillis(200))
              .verify()
              .clauses()
              .get(1);

      assertTrue(result.problem().contains("did not answer within 200 ms"), result.problem());
    }
  }

  @Test
  void wrongUseIsRefused() {
    StoredContracts contracts = Contracts.in(folder);
    assertMessage("It has contracts with: berths.", () -> contracts.of("berth"));
    assertMessage("against(", () -> contracts.of("berths").verify());
    assertMessage(
        "is not the URL of an application", () -> verification().against("localhost:8080"));
    assertMessage("is not the URL of an application", () -> verification().against("ftp://x"));
    assertMessage(
        "has a handler already", () -> verification().given("a", s -> {}).given("a", s -> {}));
    assertMessage("needs a positive time", () -> verification().timeout(Duration.ZERO));
    assertMessage("It has those of: harbour-desk.", () -> verification().consumer("desk"));
    assertMessage("does not exist", () -> Contracts.in("nowhere").of("berths"));
  }

  private static void assertMessage(String part, Runnable call) {
    RuntimeException refusal = assertThrows(RuntimeException.class, call::run);
    assertTrue(refusal.getMessage().contains(part), refusal.getMessage());
  }

  /** The tests of the provider. */
  static class BerthServiceContracts {

    @TestFactory
    Stream<DynamicNode> meetsItsContracts() {
      return verification().given("first", state -> {}).given("second", state -> {}).tests();
    }
  }

  @Test
  void eachClauseIsADynamicTest() {
    berths.answers(200, "{\"a\":\"1\"}", "content-type", "application/json");
    try {
      Events tests =
          EngineTestKit.engine("junit-jupiter")
              .selectors(selectClass(BerthServiceContracts.class))
              .execute()
              .allEvents();

      List<String> names =
          tests.started().stream().map(it -> it.getTestDescriptor().getDisplayName()).toList();
      assertEquals(
          List.of("harbour-desk", "one", "two"), names.subList(names.size() - 3, names.size()));
      assertEquals(2, tests.failed().count());
      String failure =
          tests.failed().stream()
              .findFirst()
              .flatMap(it -> it.getPayload(org.junit.platform.engine.TestExecutionResult.class))
              .flatMap(org.junit.platform.engine.TestExecutionResult::getThrowable)
              .map(Throwable::getMessage)
              .orElse("");
      assertTrue(failure.contains("a number as a string"), failure);
      assertFalse(failure.contains("%"), failure);
    } finally {
      berths.answers(200, "{\"a\":1}", "content-type", "application/json");
    }
  }
}
