// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

/**
 * A test, or whatever else a scope is for.
 *
 * @param number unique in this JVM; 0 for none
 * @param name its name in messages
 * @param isOver whether it has ended
 */
public record TestId(long number, String name, boolean isOver) {

  /** No test. */
  public static final TestId NONE = new TestId(0, "", false);
}
