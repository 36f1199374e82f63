// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.sweep.Desk.ArrivalFailed;
import dev.cachette.sweep.Desk.Plan;
import dev.cachette.sweep.result.SweepResult;
import dev.cachette.sweep.result.SweptRun;
import dev.cachette.sweep.result.SweptRun.Outcome;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;

/** The services of the harbour desk, stubbed, and sweeps of its plan. */
abstract class SweptDesk {

  static final String TIDES = "GET https://tides.example/v1/today";
  static final String BOOKINGS = "POST https://berths.example/v1/bookings";
  static final String GATE = "POST https://gate.example/v1/announcements";

  final Cachette net = Cachette.open();

  @BeforeEach
  void declare() {
    net.stub(TIDES).answer(json(Map.of("high", "04:10", "station", "marrow", "metres", 4)));
    net.stub(BOOKINGS).answer(json(Map.of("berth", "B-12")).status(201));
    net.stub("DELETE https://berths.example/v1/bookings/{berth}").answer(status(204));
    net.stub(GATE).answer(status(204));
  }

  @AfterEach
  void close() {
    net.close();
  }

  final FaultSweep<Plan> sweep(Desk desk) {
    return FaultSweep.of(net, () -> desk.plan("Kittiwake"))
        .allow(ArrivalFailed.class)
        .result(plan -> assertEquals(new Plan("04:10", "B-12"), plan));
  }

  /** Asserts in which runs something is found, and what the text says. */
  final void assertFound(FaultSweep<?> sweep, String runs, String... texts) {
    SweepResult result = sweep.run();
    Set<String> wrong =
        result.wrong().stream().map(SweptRun::id).collect(Collectors.toCollection(TreeSet::new));
    AssertionError failure = assertThrows(AssertionError.class, result::assertRight);
    String text = failure.getMessage();
    assertEquals(new TreeSet<>(List.of(runs.split(" "))), wrong, text);
    for (String each : texts) {
      assertTrue(text.contains(each), text);
    }
  }

  /** Returns what the code did in all runs. */
  static Set<Outcome> outcomes(SweepResult result) {
    return result.runs().stream().map(SweptRun::outcome).collect(Collectors.toSet());
  }
}
