// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import java.util.List;

/**
 * A scenario as it is without a fault.
 *
 * @param calls its calls
 * @param kinds their kinds
 */
record Learned(List<ScenarioCall> calls, CallKinds kinds) {

  /** Nothing is known yet. */
  static final Learned NOTHING = new Learned(List.of(), CallKinds.of(List.of(), List.of()));
}
