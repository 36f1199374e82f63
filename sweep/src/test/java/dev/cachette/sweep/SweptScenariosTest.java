// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Faults.connectionReset;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Gate;
import dev.cachette.sweep.Desk.ArrivalFailed;
import dev.cachette.sweep.Desk.Plan;
import dev.cachette.sweep.result.SweepFault;
import dev.cachette.sweep.result.SweepResult;
import dev.cachette.sweep.result.SweptRun;
import dev.cachette.sweep.result.SweptRun.Outcome;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Scenarios that vary, call in parallel or have faults of their own, and those that are refused.
 */
class SweptScenariosTest extends SweptDesk {

  @Test
  void scenarioMustPassWithoutFaults() {
    FaultSweep<String> failing =
        FaultSweep.of(
            net,
            () -> {
              throw new ArrivalFailed("closed", null);
            });
    IllegalStateException refused = assertThrows(IllegalStateException.class, failing::run);
    assertTrue(
        refused.getMessage().contains("does not pass without a fault: it threw "),
        refused.getMessage());
    FaultSweep<String> idle = FaultSweep.of(net, () -> "nothing to do");
    assertTrue(
        assertThrows(IllegalStateException.class, idle::run)
            .getMessage()
            .contains("makes no call"));
    FaultSweep<Plan> wrong =
        FaultSweep.of(net, () -> new Desk().plan("Kittiwake"))
            .result(plan -> assertEquals("B-13", plan.berth()));
    assertTrue(
        assertThrows(IllegalStateException.class, wrong::run)
            .getMessage()
            .contains("its result is wrong: "));
  }

  /** The faults of a call occur though its path is another one each time. */
  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void identifiersInPathsMayVary(boolean withDigits) {
    net.stub("PUT https://berths.example/v1/bookings/{id}/lines/{line}").answer(status(204));
    net.stub("GET https://berths.example/v1/berths/{berth}").answer(json(Map.of("berth", "B-12")));
    Desk desk = new Desk();
    SweepResult result =
        FaultSweep.of(
                net,
                () -> {
                  String random = UUID.randomUUID().toString();
                  String id = withDigits ? random : random.replaceAll("[0-9]", "g");
                  String booking = "https://berths.example/v1/bookings/" + id;
                  HttpRequest.Builder put =
                      desk.request(booking + "/lines/1").PUT(BodyPublishers.noBody());
                  if (desk.send(put).statusCode() != 204) {
                    throw new ArrivalFailed("the line is not written", null);
                  }
                  HttpResponse<String> berth = desk.get("https://berths.example/v1/berths/twelve");
                  desk.text(berth, "berth");
                  return desk.text(desk.get("https://berths.example/v1/berths/12"), "berth");
                })
            .allow(ArrivalFailed.class)
            .run();
    result.assertRight();
    assertEquals(
        Set.of(
            "1 PUT https://berths.example/v1/bookings/{id}/lines/1",
            "2 GET https://berths.example/v1/berths/twelve",
            "3 GET https://berths.example/v1/berths/12"),
        result.runs().stream()
            .map(it -> it.number() + " " + it.call())
            .collect(Collectors.toSet()));
    assertFalse(outcomes(result).contains(Outcome.NOT_MET), result.table());
  }

  /** A call that a cache saves gets no fault, which must not pass for a success. */
  @Test
  void callsOfTheFirstRunOnlyAreRefused() {
    Desk desk = new Desk();
    AtomicReference<String> cached = new AtomicReference<>();
    FaultSweep<Plan> sweep =
        FaultSweep.of(
                net,
                () -> {
                  if (cached.get() == null) {
                    cached.set(desk.tides());
                  }
                  return new Plan(cached.get(), desk.book("Kittiwake"));
                })
            .allow(ArrivalFailed.class)
            .faults(SweepFault.NOT_FOUND);
    String refused = assertThrows(IllegalStateException.class, sweep::run).getMessage();
    assertEquals(
        "The fault sweep: only one of two runs without a fault made the call "
            + TIDES
            + ", so it cannot be swept. Fix: create what caches its response within the scenario;"
            + " or, if it needs no faults, mayLeaveOut(\""
            + TIDES
            + "\").",
        refused);
    SweepResult rest = sweep.mayLeaveOut(TIDES).run();
    rest.assertRight();
    assertEquals(1, rest.runs().size());
  }

  @Test
  void faultsThatDoNotOccurAreFound() {
    Desk desk = new Desk();
    AtomicInteger runs = new AtomicInteger();
    assertFound(
        FaultSweep.of(
                net,
                () -> {
                  String high = runs.incrementAndGet() > 2 ? "04:10" : desk.tides();
                  return new Plan(high, desk.book("Kittiwake"));
                })
            .allow(ArrivalFailed.class)
            .faults(SweepFault.NOT_FOUND, SweepFault.UNKNOWN_HOST),
        "1/NOT_FOUND",
        "The fault did not occur: this run did not make the call.",
        "mayLeaveOut(\"" + TIDES + "\")");
  }

  /** A fault that is there anyway stays, and other faults may come instead of it. */
  @Test
  void scenarioMayHaveFaultsOfItsOwn() {
    String other = "https://tides.example/v1/other";
    net.stub("POST " + other).answer(connectionReset(), json(Map.of("high", "04:10")));
    Desk desk = new Desk();
    SweepResult result =
        FaultSweep.of(
                net,
                () -> {
                  try {
                    return desk.text(desk.post(other, "{}"), "high");
                  } catch (ArrivalFailed again) {
                    return desk.text(desk.post(other, "{}"), "high");
                  }
                })
            .allow(ArrivalFailed.class)
            .mayRepeat("POST " + other)
            .run();
    result.assertRight();
    List<SweepFault> first =
        result.runs().stream().filter(it -> it.number() == 1).map(SweptRun::fault).toList();
    assertTrue(first.contains(SweepFault.SERVER_ERROR), first::toString);
    assertFalse(first.contains(SweepFault.SLOW), first::toString);
  }

  @Test
  void callsMustHaveTheirResponses() {
    Gate gate = new Gate();
    net.stub("POST https://berths.example/v1/later").answer(status(204).heldBy(gate));
    Desk desk = new Desk();
    FaultSweep<String> sweep =
        FaultSweep.of(
            net,
            () -> {
              CompletableFuture.runAsync(
                  () -> {
                    try {
                      desk.post("https://berths.example/v1/later", "{}");
                    } catch (Exception ended) {
                      // At the end of the run.
                    }
                  });
              net.calls().awaitArrival(1, Duration.ofSeconds(20));
              return "";
            });
    String refused = assertThrows(IllegalStateException.class, sweep::run).getMessage();
    assertTrue(
        refused.contains(
            "it ends before its call POST https://berths.example/v1/later has a response. Fix: wait"
                + " for it within the scenario."),
        refused);
  }

  /** Calls in parallel arrive in any order. */
  @Test
  void parallelCallsAreSwept() {
    for (int at = 0; at < 6; at++) {
      net.stub("GET https://tides.example/v1/stations/" + at)
          .answer(json(Map.of("high", "0" + at)));
    }
    Desk desk = new Desk();
    FaultSweep<String> sweep =
        FaultSweep.of(
                net,
                () -> {
                  List<CompletableFuture<String>> all = new ArrayList<>();
                  for (int at = 0; at < 6; at++) {
                    String url = "https://tides.example/v1/stations/" + at;
                    all.add(CompletableFuture.supplyAsync(() -> high(desk, url)));
                  }
                  try {
                    return all.stream().map(CompletableFuture::join).toList().toString();
                  } catch (CompletionException failed) {
                    throw new ArrivalFailed("no tides", failed);
                  }
                })
            .allow(ArrivalFailed.class)
            .except(SweepFault.CONNECT_TIMEOUT)
            .result(it -> assertEquals("[00, 01, 02, 03, 04, 05]", it));
    SweepResult result = sweep.run();
    result.assertRight();
    assertEquals(
        List.of(),
        result.runs().stream()
            .filter(it -> it.outcome() == Outcome.NOT_MET && !it.fault().isBeforeRequest())
            .toList(),
        result.table());
  }

  private static String high(Desk desk, String url) {
    try {
      return desk.text(desk.get(url), "high");
    } catch (Exception failed) {
      throw new CompletionException(failed);
    }
  }
}
