// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;

/** The sockets of older releases, which Java 17 has behind a property, are intercepted, too. */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class OldSocketsTest {

  @Test
  void theirCallsAreAnswered() throws Exception {
    String said = Jvm.run(Jvm.command(List.of("-Djdk.net.usePlainSocketImpl=true"), Calling.class));
    assertEquals("04:10 04:10", said.strip());
  }

  /** Calls by sockets, in a JVM of its own. */
  static final class Calling {

    private static final PrintStream OUT = System.out;

    private Calling() {}

    public static void main(String[] arguments) throws Exception {
      try (Cachette net = Cachette.open()) {
        net.stub("GET http://tides.example/v1").answer(text("04:10"));
        net.stub("GET https://tides.example/v1").answer(text("04:10"));
        OUT.println(get("http://tides.example/v1") + " " + get("https://tides.example/v1"));
      }
    }

    private static String get(String url) throws IOException {
      try (InputStream in = URI.create(url).toURL().openStream()) {
        return new String(in.readAllBytes(), StandardCharsets.UTF_8);
      }
    }
  }
}
