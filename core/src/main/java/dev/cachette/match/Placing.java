// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;

/** Places differences below the names of their conditions, for combined conditions. */
final class Placing {

  private Placing() {}

  static List<Difference> of(Check check) {
    String condition = check.condition();
    return check.differences().stream()
        .map(each -> each.at(each.at().isEmpty() ? condition : condition + " at " + each.at()))
        .toList();
  }
}
