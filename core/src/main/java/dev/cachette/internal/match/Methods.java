// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.text.NameSuggester;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.Optional;
import java.util.Set;

/**
 * The methods of a request line.
 *
 * @param names one or several; none for any method
 */
record Methods(Set<String> names) {

  Methods {
    names = Set.copyOf(names);
  }

  boolean hold(String method) {
    return names.isEmpty() || names.contains(method);
  }

  /** Returns a rank: greater is more specific. */
  int rank() {
    return names.isEmpty() ? 0 : names.size() == 1 ? 2 : 1;
  }

  boolean cover(Methods others) {
    return names.isEmpty() || !others.names.isEmpty() && names.containsAll(others.names);
  }

  Check examine(String method) {
    if (hold(method)) {
      return Check.held("method", toString());
    }
    Optional<String> cause =
        NameSuggester.closest(method, names)
            .filter(near -> near.equalsIgnoreCase(method))
            .map(near -> "methods are case-sensitive (RFC 9110)");
    return Check.missed("method", 0.2, Difference.of(toString(), method).because(cause));
  }

  @Override
  public String toString() {
    return switch (names.size()) {
      case 0 -> "any";
      case 1 -> names.iterator().next();
      default -> String.join(",", names.stream().sorted().toList());
    };
  }
}
