// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

/**
 * A change from one version of a contract to another.
 *
 * @param provider the provider of the contract
 * @param clause the name of the clause
 * @param place the place in the clause: {@code $.price}, {@code header location}, {@code status};
 *     empty for the whole clause
 * @param before what it was; empty if there was nothing
 * @param after what it is; empty if there is nothing
 * @param asksMore whether a provider that met the contract before may not meet it now
 */
public record ContractChange(
    String provider, String clause, String place, String before, String after, boolean asksMore) {

  /** Returns the change in a line: {@code asks more $.price: a number -> an integer}. */
  @Override
  public String toString() {
    String change =
        before.isEmpty()
            ? "new: " + after
            : after.isEmpty() ? "gone: " + before : before + " -> " + after;
    return (asksMore ? "asks more  " : "           ")
        + (place.isEmpty() ? "" : place + ": ")
        + change;
  }
}
