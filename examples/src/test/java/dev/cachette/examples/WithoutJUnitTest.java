// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.TideClient;
import dev.cachette.examples.harbour.Tides;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.ResourceLock;

/** Cachette as a plain resource, for any other test framework; and calls to this machine. */
@ResourceLock(InterceptHttp.LOCK)
class WithoutJUnitTest {

  private static final LocalDate DAY = LocalDate.of(2031, 4, 2);

  @Test
  void openStubCallClose() {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/{+rest}")
          .answer(json(new Tides("Marrow Bay", List.of("04:10"))));

      assertEquals("Marrow Bay", new TideClient().tidesOf("Marrow Bay", DAY).station());
    }
  }

  @Test
  void closeFailsWhereACallWasUnexpected() {
    Cachette net = Cachette.open();
    assertThrows(RuntimeException.class, () -> new TideClient().tidesOf("Marrow Bay", DAY));

    AssertionError failure = assertThrows(AssertionError.class, net::close);
    assertTrue(failure.getMessage().startsWith("Unexpected call: "), failure::getMessage);
  }

  @Test
  void aPortOfThisMachineIsInterceptedWhereAStubNamesIt() throws IOException {
    try (Cachette net = Cachette.open()) {
      net.stub("GET http://localhost:4711/lamp").answer(text("lit"));

      byte[] lamp = URI.create("http://localhost:4711/lamp").toURL().openStream().readAllBytes();
      assertEquals("lit", new String(lamp, StandardCharsets.UTF_8));
    }
  }
}
