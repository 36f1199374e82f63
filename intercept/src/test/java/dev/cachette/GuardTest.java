// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.ConnectException;
import java.net.UnknownHostException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.opentest4j.AssertionFailedError;

/** Outside of every session, nothing leaves the machine. */
class GuardTest {

  /** Reserved for documentation (RFC 5737), and never assigned. */
  private static final String NOWHERE = "http://192.0.2.1:81/v1";

  @Test
  void whatWouldLeaveIsRefusedAndListed() {
    Guard guard = Cachette.guard();
    RunningTest ended = RunningTest.begin("TidesTest.reads");

    IOException name =
        assertThrows(UnknownHostException.class, () -> Calling.plain("http://tides.example/v1"));
    IOException address = assertThrows(ConnectException.class, () -> Calling.plain(NOWHERE));
    assertThrows(ConnectException.class, () -> Calling.plain(NOWHERE));
    ended.close();

    for (IOException refused : new IOException[] {name, address}) {
      assertTrue(refused.getMessage().startsWith("Cachette guards the network"), refused::toString);
      assertTrue(refused.getMessage().contains("TidesTest.reads"), refused::toString);
      assertTrue(refused.getMessage().contains("cachette.guardAllows="), refused::toString);
    }
    String thread = Thread.currentThread().getName();
    assertEquals(
        "Calls would have left this machine while nothing was intercepted:\n\n"
            + ("  tides.example, by thread \"" + thread + "\", for the test TidesTest.reads\n")
            + ("  192.0.2.1:81, by thread \"" + thread + "\", for the test TidesTest.reads")
            + ", tried 2 times\n\n"
            + "Fix: annotate the test classes with @InterceptHttp, or allow a host:"
            + " cachette.guardAllows=HOST.\n",
        assertThrows(AssertionFailedError.class, guard::close).getMessage());
    assertThrows(
        IOException.class, () -> Calling.plain("http://tides.invalid/v1"), "as without a guard");
  }

  @Test
  void aSessionDecidesWhileItIsOpen() throws IOException {
    try (Guard guard = Cachette.guard()) {
      try (Cachette net = Cachette.open()) {
        net.stub("GET http://tides.example/v1").answer(text("04:10"));
        assertEquals("04:10", Calling.plain("http://tides.example/v1"));
      }
      try (RealService local = new RealService()) {
        local.answers(200, "local");
        assertEquals("local", Calling.plain(local.address() + "/"));
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"192.0.2.1", "192.0.2.1:81", "*"})
  void anAllowedHostMayBeConnectedTo(String allowed) throws Exception {
    try (Guard guard = Cachette.guard(allowed);
        java.nio.channels.SocketChannel channel = java.nio.channels.SocketChannel.open()) {
      channel.configureBlocking(false);
      // Connecting begins, and is not waited for: there is nobody at this address.
      try {
        channel.connect(new java.net.InetSocketAddress("192.0.2.1", 81));
      } catch (IOException noNetwork) {
        assertTrue(!noNetwork.getMessage().contains("Cachette"), noNetwork::toString);
      }
    }
  }

  @Test
  void aCallOfAnotherTestThatRunsAtTheSameTimeDoesNotCount() throws Exception {
    try (Cachette net = Cachette.open();
        Cachette.Scope scope = net.scope("dev.example.TidesTest", "reads")) {
      net.stub("GET http://tides.example/v1").answer(text("04:10"));
      String[] response = {""};
      Thread other =
          new Thread(
              () -> {
                try (RunningTest test = RunningTest.begin("BerthsTest.books")) {
                  Calling.plain("http://tides.example/v1");
                } catch (IOException status501) {
                  response[0] = status501.getMessage();
                }
              });
      other.start();
      other.join();

      assertTrue(response[0].contains("501"), response[0]);
      net.calls().assertNone();
      assertEquals("04:10", Calling.plain("http://tides.example/v1"));
    }
  }
}
