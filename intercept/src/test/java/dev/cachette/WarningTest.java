// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;
import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;

/** Warnings in the log, here of slf4j-simple on the error stream. */
class WarningTest {

  @Test
  void stubsThatNoCallUsedAreWarnedOf() {
    String text =
        logged(
            () -> {
              try (Cachette net = Cachette.open()) {
                net.stub("GET /v1").named("in vain").answer(status(204));
              }
            });

    assertTrue(text.contains("WARN dev.cachette.Cachette - 1 unused stub:"), text);
    assertTrue(text.contains("\"in vain\" (WarningTest.java:"), text);
  }

  @Test
  void anUnexpectedCallIsWarnedOfOnceAndNothingElseIsLogged() {
    String text =
        logged(
            () -> {
              try (Cachette net =
                  Cachette.open(Settings.defaults().unexpectedCalls(UnexpectedCalls.WARN))) {
                Calling.get("https://tides.example/v1");
                Calling.get("https://tides.example/v1");
              }
            });

    assertTrue(text.contains("WARN dev.cachette.Cachette - Unexpected call: GET "), text);
    assertEquals(1, text.split("Unexpected call: ", -1).length - 1, text);
    assertEquals(1, text.lines().filter(line -> line.startsWith("[")).count(), text);
  }

  @Test
  void assertNoneWarnsIfItsUrlMayBeMisspelled() {
    String text =
        logged(
            () -> {
              try (Cachette net = Cachette.open()) {
                net.stub("* https://tides.example/{+rest}").answer(Factories.status(204));
                Calling.get("https://tides.example/v1/stations/marrow");
                net.calls("GET https://tides.example/v1/statons/{station}").assertNone();
                net.calls("GET https://tides.example/v1/stations/Marrow").assertNone();
                net.calls("GET https://tides.example/v1/stations").assertNone();
                net.calls("GET https://tides.example/v1/stations/skerry").assertNone();
                net.calls("POST https://tides.example/v1/stations/marrow").assertNone();
              }
            });

    assertEquals(2, text.split("may be misspelled", -1).length - 1, text);
    assertTrue(
        text.contains(
            "There is no call of GET https://tides.example/v1/statons/{station}, as asserted, but"
                + " the URL may be misspelled there: GET https://tides.example/v1/stations/marrow"
                + " was called."),
        text);
  }

  /** Returns what is written to the log meanwhile. */
  private static String logged(Executable task) {
    ByteArrayOutputStream log = new ByteArrayOutputStream();
    PrintStream errors = System.err;
    System.setErr(new PrintStream(log, true, StandardCharsets.UTF_8));
    try {
      assertDoesNotThrow(task);
    } finally {
      System.setErr(errors);
    }
    return log.toString(StandardCharsets.UTF_8);
  }
}
