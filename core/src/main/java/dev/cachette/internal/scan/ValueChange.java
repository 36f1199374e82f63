// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

/** Replaces values of a body. */
@FunctionalInterface
public interface ValueChange {

  /** Returns the new text of a value, decoded; its own text leaves it unchanged. */
  String of(Value value);
}
