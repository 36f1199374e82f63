// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

/** A group of calls, such as those that a stub answered. */
@FunctionalInterface
public interface CallGroup {

  /** Returns the calls of the group. */
  Calls calls();
}
