// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.http.Uri;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.calls.Tried;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.Failed;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.opentest4j.AssertionFailedError;

/**
 * Attempts to call a service that met a fault before there was a request: an unknown host, a
 * refused connection, a failed handshake. Also connections to a host that is let through, with
 * their outcome; their calls are not seen. A client that looks up or connects several times for one
 * call of the code under test has made one attempt. A client that has kept an address or a
 * connection makes a call instead, which is reset, and is in the log of calls with the fault.
 *
 * <pre>{@code
 * net.stub("GET https://berths.example/{+rest}").answer(connectionRefused(), json(berths));
 * desk.refresh();
 * net.calls().attempts("https://berths.example").assertCount(1);
 * }</pre>
 *
 * <p>A live view, like {@link Calls}. Thread-safe. Assertions throw {@link AssertionFailedError}.
 */
public final class Attempts {

  private final Log<Call> log;
  private final Uri origin;

  Attempts(Log<Call> log, Uri origin) {
    this.log = log;
    this.origin = origin;
  }

  /** Returns the number of attempts so far. */
  public int count() {
    return list().size();
  }

  /** Asserts that there were none. */
  public Attempts assertNone() {
    return assertCount(0);
  }

  /**
   * Asserts the exact number of attempts.
   *
   * @throws IllegalArgumentException if it is negative
   */
  public Attempts assertCount(int expected) {
    return assertBetween(expected, expected);
  }

  /**
   * Asserts that there were at least this many attempts.
   *
   * @throws IllegalArgumentException if it is negative
   */
  public Attempts assertAtLeast(int least) {
    return assertBetween(least, Integer.MAX_VALUE);
  }

  private Attempts assertBetween(int least, int most) {
    if (least < 0) {
      throw Refusals.argument("A number of attempts must not be negative: " + least + ".");
    }
    List<Tried> actual = list();
    if (actual.size() < least || actual.size() > most) {
      String expected =
          (least == most ? least == 0 ? "no" : "exactly " + least : "at least " + least)
              + (least == 1 ? " attempt" : " attempts")
              + " to reach "
              + origin.origin();
      throw Failed.of(
          "Expected " + expected + ", but there " + were(actual) + lines(actual),
          expected,
          actual.size());
    }
    return this;
  }

  private static String were(List<Tried> actual) {
    return actual.isEmpty()
        ? "was none."
        : actual.size() == 1 ? "was 1:\n" : "were " + actual.size() + ":\n";
  }

  private static String lines(List<Tried> actual) {
    return IntStream.range(0, actual.size())
        .mapToObj(at -> String.format("%n  %2d. %s", at + 1, actual.get(at).outcome()))
        .collect(Collectors.joining())
        .replace("\r\n", "\n");
  }

  private List<Tried> list() {
    return log.entries().tried().stream()
        .filter(tried -> tried.host().equalsIgnoreCase(origin.host()))
        .filter(tried -> tried.port().isEmpty() || tried.port().getAsInt() == origin.port())
        .toList();
  }

  /** Returns the service and the number of attempts so far. */
  @Override
  public String toString() {
    return count() + " attempts to reach " + origin.origin();
  }
}
