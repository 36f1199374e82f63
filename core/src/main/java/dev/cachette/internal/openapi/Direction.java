package dev.cachette.internal.openapi;

/** Which way a value goes, which decides the properties that it must have. */
enum Direction {
  /** To the service; what is {@code readOnly} need not be there. */
  REQUEST("readOnly"),
  /** From the service; what is {@code writeOnly} need not be there. */
  RESPONSE("writeOnly");

  private final String leftOut;

  Direction(String leftOut) {
    this.leftOut = leftOut;
  }

  /** Whether a property is not for values that go this way. */
  boolean leavesOut(Element property) {
    return property.isSet(leftOut) || property.followed().isSet(leftOut);
  }
}
