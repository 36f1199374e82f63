// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.result.Check;
import dev.cachette.verification.ClauseResult;
import dev.cachette.verification.ClauseResult.Outcome;
import dev.cachette.verification.VerificationResult;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Providers that deviate from their contract; the table is in deviations.txt. */
class DeviationTest {

  private static final BerthService BERTHS = new BerthService();

  @TempDir private static Path folder;

  /**
   * A line of the table.
   *
   * @param expected the place, expected, actual and cause of the only finding; empty if there is
   *     none
   */
  record Deviation(
      String name, int status, String mediaType, String location, String body, String expected) {

    @Override
    public String toString() {
      return name;
    }
  }

  @BeforeAll
  static void recordTheContract() {
    try (Cachette net = Cachette.open(Settings.defaults().contractFolder(folder))) {
      ContractRecording contract = Recording.begin(net);
      Stub booking =
          net.stub("POST https://berths.example/v1/bookings")
              .named("book a berth")
              .answer(
                  json("""
                  {"berth": "B-12", "day": "2031-04-02", "price": 12.5, "number": 7,
                   "state": "confirmed", "paid": false, "remark": "north side",
                   "vessel": {"name": "Kittiwake", "draught": 4.2},
                   "slots": [{"from": "04:10", "to": "05:00"}]}
                  """)
                      .status(201)
                      .header("location", "/v1/bookings/7"));
      contract
          .clause(booking)
          .format("$.day", "date")
          .oneOf("$.state", "confirmed", "waiting")
          .atLeastOne("$.slots")
          .optional("$.remark");
      new Desk().post("/v1/bookings", "{\"vessel\":\"Kittiwake\"}");
    }
  }

  @AfterAll
  static void stop() {
    BERTHS.close();
  }

  static List<Deviation> deviations() {
    return Tables.read("deviations.txt").stream()
        .map(
            lines -> {
              String[] head = lines[1].split(" +");
              return new Deviation(
                  lines[0],
                  Integer.parseInt(head[0]),
                  head[1],
                  head[2],
                  lines[2],
                  Arrays.stream(lines).skip(3).collect(Collectors.joining("\n")));
            })
        .toList();
  }

  @ParameterizedTest
  @MethodSource("deviations")
  void eachIsFoundAndNothingElse(Deviation deviation) {
    List<String> headers = new ArrayList<>();
    if (!deviation.mediaType().equals("-")) {
      headers.addAll(List.of("content-type", deviation.mediaType()));
    }
    if (!deviation.location().equals("-")) {
      headers.addAll(List.of("location", deviation.location()));
    }
    BERTHS.answers(
        deviation.status(),
        deviation.body().equals("-") ? "" : deviation.body(),
        headers.toArray(String[]::new));

    VerificationResult result = Contracts.in(folder).of("berths").against(BERTHS.url()).verify();

    ClauseResult clause = result.clauses().get(0);
    assertEquals(deviation.expected(), findings(clause), clause.explanation());
    assertEquals(deviation.expected().isEmpty() ? Outcome.MET : Outcome.NOT_MET, clause.outcome());
    if (clause.isMet()) {
      assertTrue(result.isMet());
    } else {
      assertFalse(clause.explanation().isBlank());
      for (String part : deviation.expected().split("  +|\n")) {
        assertTrue(clause.explanation().contains(part), clause.explanation());
      }
    }
  }

  private static String findings(ClauseResult clause) {
    return clause.checks().stream()
        .filter(it -> !it.holds())
        .flatMap(check -> check.differences().stream().map(it -> line(check, it)))
        .collect(Collectors.joining("\n"));
  }

  private static String line(Check check, dev.cachette.result.Difference difference) {
    return (difference.at().isEmpty() ? check.condition() : difference.at())
        + "  "
        + difference.expected()
        + "  "
        + difference.actual()
        + difference.cause().map(it -> "  " + it).orElse("");
  }
}
