// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.Factories.connectionRefused;
import static dev.cachette.Factories.json;
import static dev.cachette.Factories.status;
import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.ConnectException;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** Outages of a service, overriding stubs, repeated answers, and what unused stubs report. */
class OutageTest {

  private static final String PARTS = "https://parts.example";
  private static final String LIST = PARTS + "/v1/parts";

  private final Cachette net = Cachette.open(Settings.defaults().unusedStubs(UnusedStubs.FAIL));

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void anOutageIsForAllStubsOfAServiceUntilItEnds() throws Exception {
    Stub list = net.stub("GET " + LIST).answer(status(201), status(202));
    Stub other = net.stub("GET https://berths.example/v1").answer(status(204));
    assertEquals(201, code(LIST));

    Outage outage = net.outage(PARTS, status(503));

    assertEquals(503, code(LIST));
    assertEquals(503, code(PARTS + "/anything?at=all"));
    assertEquals(204, code("https://berths.example/v1"));
    outage.end();
    outage.end();
    assertEquals(202, code(LIST), "an outage uses no turn");
    outage.calls().assertCount(2);
    list.calls().assertCount(2);
    other.calls().assertCount(1);
  }

  @Test
  void itEndsAfterANumberOfCallsAndWithItsScope() throws Exception {
    net.stub("GET " + LIST).answer(status(200));
    net.outage(PARTS, status(503), status(500)).times(3);
    assertEquals(
        List.of(503, 500, 500, 200), List.of(code(LIST), code(LIST), code(LIST), code(LIST)));

    Cachette.Scope test = net.scope();
    net.outage(PARTS + "/", status(502));
    assertEquals(502, code(LIST));
    test.close();
    assertEquals(503, code(LIST), "as at the start of each scope");
  }

  @Test
  void itCanBeAFaultOfTheConnection() throws Exception {
    net.stub("GET " + LIST).answer(status(200));
    Outage outage = net.outage(PARTS, connectionRefused());

    assertThrows(ConnectException.class, () -> code(LIST));
    outage.end();
    assertEquals(200, code(LIST));
  }

  @Test
  void wrongArgumentsAreRefused() {
    for (String origin : new String[] {"parts.example", PARTS + "/v1", "", null}) {
      assertThrows(IllegalArgumentException.class, () -> net.outage(origin, status(503)));
    }
    assertThrows(IllegalArgumentException.class, () -> net.outage(PARTS, null));
    Outage outage = net.outage(PARTS, status(503));
    assertThrows(IllegalArgumentException.class, () -> outage.times(0));
    outage.end();
  }

  @Test
  void anOverridingStubWinsOverNarrowerOnesOfItsScope() throws Exception {
    net.stub("* " + PARTS + "/{+rest}").answer(status(418)).overriding();
    net.stub("GET " + LIST).answer(status(200));
    assertEquals(418, code(LIST));

    Cachette.Scope test = net.scope();
    net.stub("GET " + LIST).answer(status(201));
    assertEquals(201, code(LIST), "the inner scope wins");
    test.close();
    AssertionFailedError unused = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(unused.getMessage().contains("it matches 2 calls"), unused.getMessage());
  }

  @Test
  void aWideStubThatNeverAnsweredIsExplained() throws Exception {
    net.stub("GET " + PARTS + "/{+rest}").named("all parts").answer(status(200));
    net.stub("GET " + LIST).named("the list").answer(status(201));
    code(LIST);
    code(LIST);

    AssertionFailedError unused = assertThrows(AssertionFailedError.class, net::close);

    assertTrue(
        unused
            .getMessage()
            .matches(
                "(?s)1 unused stub:\n\n  \"all parts\" \\(OutageTest\\.java:\\d+\\)\n"
                    + "    it matches 2 calls, but \"the list\" \\(OutageTest\\.java:\\d+\\) won\n"
                    + "    \\(the inner scope wins, .*; overriding\\(\\) changes that\\)\n.*"),
        unused.getMessage());
  }

  @Test
  void theSameIsKnownOfTheBaseline() throws Exception {
    net.stub("GET " + PARTS + "/{+rest}").named("all parts").answer(status(200));
    Cachette.Scope test = net.scope();
    net.stub("GET " + LIST).named("the list").answer(status(201));
    code(LIST);
    test.close();

    AssertionFailedError unused = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(unused.getMessage().contains("it matches 1 call, but \"the list\""));
  }

  @Test
  void stubsOfSetUpMethodsCountAsUsedIfAnyTestUsedThem() throws Exception {
    Cachette.Scope first = net.scope(getClass().getName(), "first");
    setUp();
    code(LIST);
    first.close();
    Cachette.Scope second = net.scope(getClass().getName(), "second");
    setUp();
    second.close();

    AssertionFailedError unused = assertThrows(AssertionFailedError.class, net::close);
    assertTrue(unused.getMessage().contains("\"never used\""), unused.getMessage());
    assertTrue(!unused.getMessage().contains("\"used once\""), unused.getMessage());
  }

  private void setUp() {
    net.stub("GET " + LIST).named("used once").answer(status(200));
    net.stub("GET " + PARTS + "/none").named("never used").answer(status(200));
  }

  @Test
  void stubsOfTheTestItselfAreReportedWithIt() {
    Cachette.Scope test = net.scope(getClass().getName(), "stubsOfTheTestItselfAreReportedWithIt");
    Stream.of("a", "b").forEach(name -> net.stub("GET " + LIST).named(name).answer(status(200)));

    AssertionFailedError unused = assertThrows(AssertionFailedError.class, test::close);
    assertTrue(unused.getMessage().startsWith("2 unused stubs:"), unused.getMessage());
  }

  @Test
  void aFailedTestReportsNoMisuseOnTop() {
    Cachette.Scope test = net.scope();
    net.stub("GET " + LIST);
    net.stub("GET " + LIST).answer(status(200));
    net.markFailed(new AssertionError("failed"));
    test.close();
  }

  @Test
  void aRefusedArgumentIsTheOnlyMistake() {
    Throwable refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> {
              try (Cachette.Scope test = net.scope()) {
                net.stub("GET " + LIST).header("x desk", "north").answer(status(200));
              }
            });

    assertEquals(0, refused.getSuppressed().length);
  }

  @Test
  void answersAreRepeatedInTurn() throws Exception {
    net.stub("GET " + LIST)
        .answer(status(202).text("queued").repeated(2).repeated(2), text("done"));
    for (int call = 0; call < 4; call++) {
      assertEquals(202, code(LIST));
    }
    assertEquals(200, code(LIST));
    assertEquals(200, code(LIST));
    assertTrue(net.toStubFile().contains("repeated: 4"), net.toStubFile());
    for (int times : new int[] {0, -1, 100_001}) {
      assertThrows(IllegalArgumentException.class, () -> status(200).repeated(times));
    }
  }

  @Test
  void aStatusTakesItsContent() throws Exception {
    net.stub("GET " + PARTS + "/a").answer(status(404).json(List.of("none")));
    net.stub("GET " + PARTS + "/b")
        .answer(status(500).header("content-type", "text/csv").text("a,b"));
    var json = Calling.get(PARTS + "/a");
    var text = Calling.get(PARTS + "/b");

    assertEquals(404, json.statusCode());
    assertEquals("[\"none\"]", json.body());
    assertEquals("application/json", json.headers().firstValue("content-type").orElseThrow());
    assertEquals(500, text.statusCode());
    assertEquals("text/csv", text.headers().firstValue("content-type").orElseThrow());
    assertThrows(IllegalStateException.class, () -> status(204).json("1"));
    assertThrows(IllegalStateException.class, () -> json("1").text("2"));
  }

  @Test
  void anUnknownVariableOfATemplateIsRefusedAtItsLine() {
    UnansweredStub stub = net.stub("GET " + PARTS + "/v1/{part}");

    var refused =
        assertThrows(
            IllegalArgumentException.class,
            () -> stub.answer(Factories.template("text/plain", "${path.prt}")));

    assertTrue(refused.getMessage().contains("Did you mean ${path.part}?"), refused::getMessage);
  }

  private static int code(String url) throws IOException, InterruptedException {
    return Calling.get(url).statusCode();
  }
}
