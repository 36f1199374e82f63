// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Faults.connectionRefused;
import static dev.cachette.answer.Faults.expiredCertificate;
import static dev.cachette.answer.Faults.unknownHost;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import org.opentest4j.AssertionFailedError;

/** Attempts that met a fault before there was a request, counted at the code under test. */
class AttemptsTest {

  private static final String BERTHS = "https://berths.example";

  @Test
  void attemptsThatNeverBecameCallsAreCounted() throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://berths.example/v1")
          .answer(unknownHost(), connectionRefused(), expiredCertificate(), text("B-12"));
      for (int failing = 1; failing <= 3; failing++) {
        assertThrows(IOException.class, () -> Calling.get(BERTHS + "/v1"));
        net.calls().attempts(BERTHS).assertCount(failing).assertAtLeast(1);
      }
      assertEquals("B-12", Calling.get(BERTHS + "/v1").body());

      net.calls().attempts(BERTHS).assertCount(3);
      net.calls().attempts("https://tides.example").assertNone();
      net.calls().assertCount(1);
      assertEquals(
          """
          Expected no attempts to reach https://berths.example, but there were 3:

             1. unknown host
             2. connection refused
             3. expired certificate\
          """,
          assertThrows(AssertionFailedError.class, () -> net.calls().attempts(BERTHS).assertNone())
              .getMessage());
    }
  }

  @Test
  void theyBelongToTheirTest() throws Exception {
    try (Cachette net = Cachette.open()) {
      try (Cachette.Scope first = net.scope()) {
        net.stub("GET https://berths.example/v1").answer(connectionRefused());
        assertThrows(IOException.class, () -> Calling.get(BERTHS + "/v1"));
        net.calls().attempts(BERTHS).assertCount(1);
      }
      assertEquals(0, net.calls().attempts(BERTHS).count());
      assertThrows(IllegalArgumentException.class, () -> net.calls().attempts("berths.example"));
      assertThrows(
          IllegalArgumentException.class, () -> net.calls().attempts(BERTHS).assertCount(-1));
    }
  }
}
