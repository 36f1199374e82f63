package dev.cachette.match;

import java.util.List;

/**
 * What a pattern says of a request: every condition with how it fared.
 *
 * @param checks one for each condition, in the order they are written in a request
 */
public record Verdict(List<Check> checks) {

  /** Copies the list. */
  public Verdict {
    checks = List.copyOf(checks);
  }

  /** Whether every condition holds. */
  public boolean fits() {
    return checks.stream().allMatch(Check::holds);
  }

  /** The conditions that do not hold. */
  public List<Check> misses() {
    return checks.stream().filter(check -> !check.holds()).toList();
  }

  /** How near the request came, from 0 (nothing in common) to 1 (it fits). */
  public double nearness() {
    return checks.stream().mapToDouble(Check::nearness).average().orElse(1);
  }
}
