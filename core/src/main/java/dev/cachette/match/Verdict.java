package dev.cachette.match;

import java.util.List;
import java.util.stream.Stream;

/**
 * What a pattern says of a request: every condition with how it fared.
 *
 * @param line how method and URL fared
 * @param conditions how the further conditions fared, in the order they were declared
 */
public record Verdict(List<Check> line, List<Check> conditions) {

  /** Whoever calls the right URL is nearer than who sends the right body elsewhere. */
  private static final double WEIGHT_OF_LINE = 0.75;

  /** Copies the lists. */
  public Verdict {
    line = List.copyOf(line);
    conditions = List.copyOf(conditions);
  }

  /** All of them: method and URL first. */
  public List<Check> checks() {
    return Stream.concat(line.stream(), conditions.stream()).toList();
  }

  /** Whether every condition holds. */
  public boolean fits() {
    return misses().isEmpty();
  }

  /** The conditions that do not hold. */
  public List<Check> misses() {
    return checks().stream().filter(check -> !check.holds()).toList();
  }

  /** How near the request came, from 0 (nothing in common) to 1 (it fits). */
  public double nearness() {
    return conditions.isEmpty()
        ? average(line)
        : WEIGHT_OF_LINE * average(line) + (1 - WEIGHT_OF_LINE) * average(conditions);
  }

  private static double average(List<Check> checks) {
    return checks.stream().mapToDouble(Check::nearness).average().orElse(1);
  }
}
