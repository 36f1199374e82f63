// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** A command, started in this JVM, and in a process of its own. */
class TideCommandTest {

  private static final String TIDES = "{\"high\": [\"04:10\"]}";

  @Test
  void printsTheTides() throws Exception {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1/stations/marrow/tides").answer(json(TIDES));

      TideCommand.run("marrow", new PrintStream(out, true));
    }

    assertEquals(TIDES, out.toString());
  }

  // snippet process
  @Test
  void printsTheTidesInItsOwnProcess() throws Exception {
    try (Cachette net = Cachette.open(Settings.defaults().withoutInterception())) {
      net.stub("GET https://tides.example/v1/stations/marrow/tides").answer(json(TIDES));

      Process command =
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "-Dtides.url=" + net.baseUrlFor("https://tides.example"),
                  "-cp",
                  System.getProperty("java.class.path"),
                  TideCommand.class.getName(),
                  "marrow")
              .start();

      assertEquals(TIDES, new String(command.getInputStream().readAllBytes()));
      assertTrue(command.waitFor(30, TimeUnit.SECONDS));
      net.calls("GET https://tides.example/{+rest}").assertCount(1);
    }
  }

  // end

  // snippet property
  @Test
  void takesTheUrlFromAPropertyThatIsSetBeforeItStarts() throws Exception {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    Settings settings =
        Settings.defaults()
            .withoutInterception()
            .baseUrlInProperty("tides.url", "https://tides.example");
    try (Cachette net = Cachette.open(settings)) {
      net.stub("GET https://tides.example/v1/stations/marrow/tides").answer(json(TIDES));

      TideCommand.run("marrow", new PrintStream(out, true));
    }

    assertEquals(TIDES, out.toString());
  }
  // end
}
