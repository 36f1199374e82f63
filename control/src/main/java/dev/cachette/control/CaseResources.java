// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.problem;
import static dev.cachette.answer.Answers.status;

import dev.cachette.answer.Answer;
import dev.cachette.match.Received;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;

/** The resources of cases at the control port. */
final class CaseResources {

  private static final String CASE = "/cases/{number}";

  private final Optional<CaseControl> cases;

  CaseResources(Optional<CaseControl> cases) {
    this.cases = cases;
  }

  /** Takes a request line and what answers it. */
  void addTo(BiConsumer<String, Function<Received, Answer>> port) {
    port.accept("GET /cases", received -> with(it -> json(Map.of("cases", it.cases()))));
    port.accept(
        "PUT " + CASE + "/name",
        received -> change(it -> it.rename(number(received), received.text().strip())));
    port.accept(
        "POST " + CASE + "/varying",
        received -> change(it -> it.markVarying(number(received), received.text().strip())));
    port.accept("DELETE " + CASE, received -> change(it -> it.drop(number(received))));
  }

  private Answer with(Function<CaseControl, Answer> function) {
    return cases
        .map(function)
        .orElseGet(
            () ->
                problem(
                    404,
                    "No cases",
                    Map.of(
                        "detail",
                        "No cases are captured or replayed here. Fix: cachette capture --control"
                            + " PORT")));
  }

  private interface Change {
    void of(CaseControl cases);
  }

  private Answer change(Change change) {
    return with(
        it -> {
          change.of(it);
          return status(204);
        });
  }

  private static long number(Received received) {
    String number = received.variable("number");
    if (!number.matches("[0-9]{1,9}")) {
      throw new IllegalArgumentException("\"" + number + "\" is not the number of a case.");
    }
    return Long.parseLong(number);
  }
}
