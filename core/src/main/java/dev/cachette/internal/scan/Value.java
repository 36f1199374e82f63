// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

/**
 * One value in a body.
 *
 * @param name the name closest to it: a member, an element, an attribute, a field; empty for none
 * @param text the value, decoded
 * @param kind its type
 */
public record Value(String name, String text, Kind kind) {

  /** The type of a value. Only JSON has others than strings. */
  public enum Kind {
    STRING,
    NUMBER,
    /** A boolean, or null. */
    LITERAL
  }

  /** Creates a string. */
  static Value string(String name, String text) {
    return new Value(name, text, Kind.STRING);
  }
}
