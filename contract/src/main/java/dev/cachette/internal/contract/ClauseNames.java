// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.verification.GivenState;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Gives clauses of one stub, or of stubs of the same name, different names. */
final class ClauseNames {

  private ClauseNames() {}

  /**
   * Returns the clauses sorted by name: with their state and status in it, and a number, if needed.
   */
  static List<Clause> distinct(List<Clause> clauses) {
    Map<String, List<Clause>> byName = new TreeMap<>();
    clauses.forEach(it -> byName.computeIfAbsent(it.name(), name -> new ArrayList<>()).add(it));
    List<Clause> named = new ArrayList<>();
    Map<String, Integer> taken = new HashMap<>();
    for (List<Clause> alike : byName.values()) {
      boolean states = alike.stream().map(Clause::given).distinct().count() > 1;
      boolean status = alike.stream().map(Clause::status).distinct().count() > 1;
      for (Clause clause : alike) {
        String name = name(clause, states, status);
        int number = taken.merge(name, 1, Integer::sum);
        named.add(clause.named(number == 1 ? name : name + " (" + number + ")"));
      }
    }
    named.sort(Comparator.comparing(Clause::name));
    return named;
  }

  private static String name(Clause clause, boolean states, boolean status) {
    String given =
        states && !clause.given().isEmpty()
            ? ", given "
                + clause.given().stream()
                    .map(GivenState::toString)
                    .collect(Collectors.joining(" and "))
            : "";
    return clause.name() + given + (status ? ", status " + clause.status() : "");
  }
}
