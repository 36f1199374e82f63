// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

/** The direction of a value, which determines its required properties. */
enum Direction {
  /** To the service; {@code readOnly} properties are optional. */
  REQUEST("readOnly"),
  /** From the service; {@code writeOnly} properties are optional. */
  RESPONSE("writeOnly");

  private final String leftOut;

  Direction(String leftOut) {
    this.leftOut = leftOut;
  }

  /** Returns true if a property is not for values in this direction. */
  boolean leavesOut(Element property) {
    return property.isSet(leftOut) || property.followed().isSet(leftOut);
  }
}
