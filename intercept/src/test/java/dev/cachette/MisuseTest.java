// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;
import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Answer;
import dev.cachette.match.RequestPattern;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;

/** Each mistake fails at the line that made it, and says how to fix it. */
class MisuseTest {

  @Test
  void anArgumentThatCannotBe() {
    try (Cachette net = Cachette.open()) {
      UnansweredStub stub = net.stub("GET /v1");
      stub.answer(status(204));
      Map<String, Executable> mistakes =
          Map.of(
              "The request line must not be null. Fix:", () -> net.stub((String) null),
              "The request pattern must not be null", () -> net.stub((RequestPattern) null),
              "Malformed request line, at column 1", () -> net.calls("tides.example"),
              "must not be blank", () -> net.stub("GET /draft").named(" "),
              "answer 2 of 2 is null", () -> net.stub("GET /2").answer(status(204), (Answer) null),
              "The setting mapper must", () -> Settings.defaults().mapper(null),
              "maxRequestBody must be positive, not 0", () -> Settings.defaults().maxRequestBody(0),
              "The settings must not be null", () -> Cachette.open(null));

      mistakes.forEach(
          (expected, mistake) -> {
            var refused = assertThrows(IllegalArgumentException.class, mistake);
            assertTrue(refused.getMessage().contains(expected), refused::getMessage);
          });
      var tooLate = assertThrows(IllegalStateException.class, () -> stub.answer(status(200)));
      assertTrue(tooLate.getMessage().contains("MisuseTest.java:"), tooLate::getMessage);
      assertThrows(IllegalStateException.class, () -> stub.header("x-desk", "7"));
      // A refused stub has no answer, which is not another mistake.
      assertDoesNotThrow(net::reset);
    }
  }

  @Test
  void openingTwice() {
    try (Cachette first = Cachette.open()) {
      var refused = assertThrows(IllegalStateException.class, Cachette::open);

      assertTrue(
          refused
              .getMessage()
              .matches(
                  "The Cachette opened at MisuseTest\\.java:\\d+ is intercepting in this JVM"
                      + " already\\. Fix: close it first; .*"),
          refused::getMessage);
      assertEquals(0, first.calls().stream().count());
    }
    Cachette.open(Settings.defaults().name("BerthDeskTest")).close();
  }

  @Test
  void useAfterClose() {
    Cachette net = Cachette.open();
    UnansweredStub draft = net.stub("GET /v1");
    assertThrows(IllegalStateException.class, net::close);

    Stream<Executable> uses =
        Stream.of(
            () -> net.stub("GET /v1"),
            () -> net.calls(),
            () -> net.calls("GET /v1"),
            net::scope,
            net::reset,
            () -> draft.answer(status(204)));
    uses.forEach(
        use -> {
          var refused = assertThrows(IllegalStateException.class, use);
          assertTrue(
              refused
                  .getMessage()
                  .matches(
                      "The Cachette opened at MisuseTest\\.java:\\d+ was closed at "
                          + ".*\\. Fix: open another one with Cachette\\.open\\(\\)\\."),
              refused::getMessage);
        });
  }

  @Test
  void aStubWithoutAnAnswerFailsWhereItWasBegun() {
    Cachette net = Cachette.open();
    net.stub("GET https://tides.example/v1").named("tides");

    var refused = assertThrows(IllegalStateException.class, net::close);

    assertTrue(
        refused.getMessage().startsWith("The stub \"tides\" (MisuseTest.java:"),
        refused::getMessage);
    assertEquals("MisuseTest.java", refused.getStackTrace()[0].getFileName());
  }

  @Test
  void anAnswerAfterTheScopeHasEnded() {
    try (Cachette net = Cachette.open()) {
      UnansweredStub draft;
      Cachette.Scope scope = net.scope();
      draft = net.stub("GET /v1");
      assertThrows(IllegalStateException.class, scope::close);

      var refused = assertThrows(IllegalStateException.class, () -> draft.answer(status(204)));
      assertTrue(refused.getMessage().contains("a scope that has ended"), refused::getMessage);
    }
  }
}
