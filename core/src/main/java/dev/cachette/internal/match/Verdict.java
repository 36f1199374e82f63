// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.masking.RequestMask;
import dev.cachette.result.Check;
import java.util.List;
import java.util.stream.Stream;

/**
 * The result of testing a pattern against a request, with each condition.
 *
 * @param line the results for method and URL
 * @param conditions the results for the further conditions, in the order of their declaration
 * @param untested the number of further conditions that were not tested, as the line is another
 */
public record Verdict(List<Check> line, List<Check> conditions, int untested) {

  /** The right URL counts more than the right body at another URL. */
  private static final double WEIGHT_OF_LINE = 0.75;

  /** Copies the lists. */
  public Verdict {
    line = List.copyOf(line);
    conditions = List.copyOf(conditions);
  }

  /** Returns this verdict with what a request has of secrets masked. */
  public Verdict masked(RequestMask mask) {
    return new Verdict(mask.checks(line), mask.checks(conditions), untested);
  }

  /** Returns all results: method and URL first. */
  public List<Check> checks() {
    return Stream.concat(line.stream(), conditions.stream()).toList();
  }

  /** Returns true if every condition holds. */
  public boolean fits() {
    return misses().isEmpty();
  }

  /** Returns the conditions that do not hold. */
  public List<Check> misses() {
    return checks().stream().filter(check -> !check.holds()).toList();
  }

  /** Returns how close the request came, from 0 (nothing in common) to 1 (it matches). */
  public double nearness() {
    int all = conditions.size() + untested;
    if (all == 0) {
      return average(line);
    }
    double tested = conditions.stream().mapToDouble(Check::nearness).sum();
    return WEIGHT_OF_LINE * average(line) + (1 - WEIGHT_OF_LINE) * tested / all;
  }

  private static double average(List<Check> checks) {
    return checks.stream().mapToDouble(Check::nearness).average().orElse(1);
  }
}
