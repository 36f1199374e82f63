// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.answer.Answer;
import dev.cachette.sweep.result.SweepFault;

/**
 * A fault for one call.
 *
 * @param call the call
 * @param fault the fault
 * @param detail its place in the body; empty if it has none
 * @param answer what the call gets
 */
record Variant(ScenarioCall call, SweepFault fault, String detail, Answer answer) {

  /** Returns what runs it alone. */
  String id() {
    String id = call.number() + "/" + fault.name();
    return detail.isEmpty() ? id : id + "/" + detail;
  }
}
