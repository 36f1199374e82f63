// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import dev.cachette.internal.calls.Tried;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** Lists connections that were let through, which are not in the list of calls. */
final class LetThroughText {

  private LetThroughText() {}

  /** Returns a paragraph with an empty line before it; empty if there were none. */
  static String of(List<Tried> attempts) {
    return line("Let through, so their calls are not seen: ", attempts, Tried::isConnected)
        + line(
            "Let through, but not connected: ",
            attempts,
            it -> it.isLetThrough() && !it.isConnected());
  }

  private static String line(String beginning, List<Tried> attempts, Predicate<Tried> which) {
    Map<String, Long> connections =
        attempts.stream()
            .filter(which)
            .collect(
                Collectors.groupingBy(
                    Tried::destination, LinkedHashMap::new, Collectors.counting()));
    return connections.isEmpty()
        ? ""
        : connections.entrySet().stream()
            .map(each -> each.getKey() + number(each.getValue()))
            .collect(Collectors.joining(", ", "\n\n" + beginning, "."));
  }

  private static String number(long connections) {
    return connections == 1 ? "" : " (" + connections + " times)";
  }
}
