// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep;

import static dev.cachette.answer.Answers.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.sweep.Desk.ArrivalFailed;
import dev.cachette.sweep.Desk.Plan;
import dev.cachette.sweep.result.SweepFault;
import dev.cachette.sweep.result.SweepResult;
import dev.cachette.sweep.result.SweptRun;
import dev.cachette.sweep.result.SweptRun.Outcome;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** A right desk passes the sweep; each weakness of a wrong one is found, in the right runs. */
class FaultSweepTest extends SweptDesk {
  @Test
  void rightCodePasses() {
    SweepResult result = sweep(new Desk()).invariant("one booking at most", () -> booked(1)).run();
    result.assertRight();
    assertEquals(
        "The fault sweep: none of " + result.runs().size() + " runs with a fault went wrong",
        result.toString());
    Set<Outcome> outcomes =
        result.runs().stream().map(SweptRun::outcome).collect(Collectors.toSet());
    assertEquals(Set.of(Outcome.RECOVERED, Outcome.FAILED_AS_ALLOWED), outcomes, result.table());
  }

  @Test
  void missingTimeoutHangs() {
    Desk desk =
        new Desk() {
          @Override
          HttpRequest.Builder request(String url) {
            return HttpRequest.newBuilder(java.net.URI.create(url));
          }
        };
    assertFound(
        sweep(desk)
            .faults(SweepFault.NO_RESPONSE, SweepFault.SERVER_ERROR)
            .within(Duration.ofMillis(500)),
        "1/NO_RESPONSE 2/NO_RESPONSE 3/NO_RESPONSE",
        "HUNG",
        "It did not end within 500 ms. Fix: set a timeout for this call; or",
        "only(\"1/NO_RESPONSE\"), or -Dcachette.sweep.only='1/NO_RESPONSE'",
        "The same in: 2/NO_RESPONSE, 3/NO_RESPONSE");
  }

  @Test
  void swallowedFaultIsFound() {
    Desk desk =
        new Desk() {
          @Override
          void announce(String vessel, String berth) {
            try {
              super.announce(vessel, berth);
            } catch (Exception ignored) {
              // Nobody notices.
            }
          }
        };
    assertFound(
        FaultSweep.of(net, () -> desk.plan("Kittiwake"))
            .allow(ArrivalFailed.class)
            .callsTo("* https://gate.example/{+rest}")
            .faults(SweepFault.CONNECTION_RESET, SweepFault.SLOW, SweepFault.UNKNOWN_HOST),
        "3/CONNECTION_RESET 3/UNKNOWN_HOST",
        "It swallows the fault: it returned without calling again.");
  }

  @Test
  void wrongResultIsFound() {
    Desk desk =
        new Desk() {
          @Override
          String tides() {
            try {
              return super.tides();
            } catch (Exception ignored) {
              return "unknown";
            }
          }
        };
    assertFound(
        sweep(desk).faults(SweepFault.NOT_FOUND, SweepFault.NULL_MEMBER).lasting(),
        "1/NOT_FOUND 1/NULL_MEMBER/$.high",
        "It returned a wrong result: expected: <Plan[high=04:10, berth=B-12]>");
  }

  @Test
  void endlessRetryIsFound() {
    Desk desk =
        new Desk() {
          @Override
          String tides() throws Exception {
            while (true) {
              try {
                return super.tides();
              } catch (ArrivalFailed again) {
                // At once.
              }
            }
          }
        };
    assertFound(
        sweep(desk)
            .faults(SweepFault.UNAVAILABLE)
            .callsTo(TIDES)
            .lasting()
            .within(Duration.ofMillis(400)),
        "1/UNAVAILABLE",
        "It did not end within 400 ms",
        " times; 3 are allowed.");
  }

  /** Whatever has failed, it books again. */
  private static class BooksAgain extends Desk {

    @Override
    String book(String vessel) throws Exception {
      try {
        return super.book(vessel);
      } catch (ArrivalFailed again) {
        return super.book(vessel);
      }
    }
  }

  @Test
  void repeatedBookingIsFound() {
    Desk desk = new BooksAgain();
    FaultSweep<Plan> sweep =
        sweep(desk)
            .callsTo(BOOKINGS)
            .faults(
                SweepFault.CONNECTION_RESET,
                SweepFault.TRUNCATED,
                SweepFault.UNAVAILABLE,
                SweepFault.CONNECTION_REFUSED);
    assertFound(
        sweep,
        "2/CONNECTION_RESET 2/TRUNCATED",
        "It repeated a call that is not idempotent",
        "mayRepeat(\"" + BOOKINGS + "\")");
    sweep.mayRepeat(BOOKINGS).run().assertRight();
  }

  @Test
  void idempotencyKeyAllowsRepetition() {
    Desk desk =
        new BooksAgain() {
          @Override
          HttpRequest.Builder request(String url) {
            return super.request(url).header("idempotency-key", "arrival-7");
          }
        };
    sweep(desk).callsTo(BOOKINGS).faults(SweepFault.TRUNCATED).run().assertRight();
  }

  @Test
  void exceptionOfTheParserIsFound() {
    Desk desk =
        new Desk() {
          @Override
          String text(HttpResponse<String> response, String member) throws Exception {
            return new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(response.body())
                .get(member)
                .textValue();
          }
        };
    assertFound(
        sweep(desk)
            .allow(Exception.class)
            .faults(SweepFault.INVALID_JSON, SweepFault.MISSING_MEMBER, SweepFault.NOT_FOUND)
            .callsTo(BOOKINGS),
        "2/INVALID_JSON 2/MISSING_MEMBER/$.berth 2/NOT_FOUND",
        "It leaks a raw exception, java.lang.NullPointerException");
  }

  @Test
  void brokenInvariantIsFound() {
    Desk desk =
        new Desk() {
          @Override
          void cancel(String berth) {}
        };
    assertFound(
        sweep(desk)
            .faults(SweepFault.SERVER_ERROR)
            .invariant(
                "a booking that is not announced is cancelled",
                () -> {
                  if (net.calls(GATE).stream().anyMatch(it -> it.outcome().startsWith("500"))) {
                    net.calls("DELETE https://berths.example/v1/bookings/{berth}").assertCount(1);
                  }
                }),
        "3/SERVER_ERROR",
        "The invariant \"a booking that is not announced is cancelled\" does not hold: ");
  }

  @Test
  void callsLeftUndoneAreFound() {
    Desk desk =
        new Desk() {
          @Override
          Plan plan(String vessel) throws Exception {
            try {
              return super.plan(vessel);
            } catch (ArrivalFailed failed) {
              return new Plan("04:10", "B-12");
            }
          }
        };
    FaultSweep<Plan> sweep = sweep(desk).callsTo(BOOKINGS).faults(SweepFault.NOT_FOUND);
    assertFound(sweep, "2/NOT_FOUND", "It returned, but left a call undone: " + GATE);
    sweep.mayLeaveOut(GATE).run().assertRight();
  }

  @Test
  void otherExceptionsAreFound() {
    assertFound(
        FaultSweep.of(net, () -> new Desk().plan("Kittiwake"))
            .faults(SweepFault.NOT_FOUND)
            .callsTo(BOOKINGS),
        "2/NOT_FOUND",
        "It threw dev.cachette.sweep.Desk$ArrivalFailed: berths.example answered 404",
        "allow(ArrivalFailed.class)");
  }

  @Test
  void callsThatNothingAnswersAreFound() {
    Desk desk =
        new Desk() {
          @Override
          void cancel(String berth) throws Exception {
            post("https://berths.example/v1/cancellations", "{}");
          }
        };
    assertFound(
        sweep(desk).faults(SweepFault.SERVER_ERROR).callsTo(GATE),
        "3/SERVER_ERROR",
        "It did something else: Unexpected call: POST https://berths.example/v1/cancellations");
  }

  /** The text that runs one cell alone can be copied into Java and into a shell. */
  @Test
  void namesOfMembersAreQuoted() {
    net.stub("GET https://tides.example/v1/odd").answer(json(Map.of("it's \"high\"", "04:10")));
    Desk desk = new Desk();
    FaultSweep<String> sweep =
        FaultSweep.of(
                net,
                () -> {
                  if (!desk.get("https://tides.example/v1/odd").body().contains("04:10")) {
                    throw new IllegalStateException("not high");
                  }
                  return "";
                })
            .faults(SweepFault.NULL_MEMBER);
    String id = sweep.run().wrong().get(0).id();
    String text = assertThrows(AssertionError.class, sweep.run()::assertRight).getMessage();
    assertTrue(text.contains("only(\"" + id.replace("\\", "\\\\").replace("\"", "\\\"")), text);
    assertTrue(text.contains("only='" + id.replace("'", "'\\''") + "'\n"), text);
    assertEquals(1, sweep.only(id).run().wrong().size());
  }

  private void booked(int times) {
    long made = net.calls(BOOKINGS).stream().filter(it -> it.outcome().startsWith("201")).count();
    assertTrue(made <= times, made + " bookings");
  }
}
