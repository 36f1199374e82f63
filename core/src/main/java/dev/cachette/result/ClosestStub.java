// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

import java.util.List;

/**
 * A stub, or a recorded exchange, that came close to answering an unexpected call.
 *
 * @param stub its name and place
 * @param checks how the call met each of its conditions, and why it would not have answered anyway;
 *     secrets are masked
 */
public record ClosestStub(StubReference stub, List<Check> checks) {

  /** Copies the list. */
  public ClosestStub {
    checks = List.copyOf(checks);
  }
}
