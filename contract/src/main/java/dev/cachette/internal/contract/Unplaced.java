// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.result.StubReference;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** The needs of stubs that none of their responses has a place for: misspelled paths, mostly. */
final class Unplaced {

  /** The reason, by stub and path; empty once a response has the place. */
  private final Map<String, Optional<String>> reasons = new TreeMap<>();

  void note(StubReference stub, String place, Optional<String> why) {
    reasons.merge(
        stub + " " + place,
        why.map(it -> "the stub " + stub + ": " + it),
        (one, other) -> one.isEmpty() ? one : other);
  }

  /** Returns the reasons of those without a place in any response. */
  List<String> everywhere() {
    return reasons.values().stream().flatMap(Optional::stream).toList();
  }
}
