package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** What stands in the log, here that of slf4j-simple on the error stream. */
class WarningTest {

  @Test
  void anUnexpectedCallIsWarnedOfOnceAndNothingElseIsLogged() throws Exception {
    ByteArrayOutputStream log = new ByteArrayOutputStream();
    PrintStream errors = System.err;
    System.setErr(new PrintStream(log, true, StandardCharsets.UTF_8));
    try (Cachette net = Cachette.open(Settings.defaults().unexpectedCalls(UnexpectedCalls.WARN))) {
      Calling.get("https://tides.example/v1");
      Calling.get("https://tides.example/v1");
    } finally {
      System.setErr(errors);
    }

    String text = log.toString(StandardCharsets.UTF_8);
    assertTrue(text.contains("WARN dev.cachette.Cachette - No stub answers this call."), text);
    assertEquals(1, text.split("No stub answers this call", -1).length - 1, text);
    assertEquals(1, text.lines().filter(line -> line.startsWith("[")).count(), text);
  }
}
