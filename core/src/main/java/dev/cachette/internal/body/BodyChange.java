// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

/**
 * A change from one body to another.
 *
 * @param kind the kind of change
 * @param place a path, a field, a part; {@code body} for all of it
 * @param before the old value; empty if it is new
 * @param after the new value; empty if it is gone
 * @param ignoring ignores this place, if only its value may vary
 */
public record BodyChange(Kind kind, String place, String before, String after, Ignored ignoring) {

  /** The kinds of change. */
  public enum Kind {
    /** A member, element or field is missing. */
    GONE,
    /** A member, element or field is new. */
    NEW,
    /** The type of a value differs. */
    TYPE,
    /** Only a value differs. */
    VALUE,
    /** Only the number of elements differs. */
    SIZE
  }

  static BodyChange gone(String place, String type) {
    return new BodyChange(Kind.GONE, place, type, "", Ignored.NOTHING);
  }

  static BodyChange fresh(String place, String type) {
    return new BodyChange(Kind.NEW, place, "", type, Ignored.NOTHING);
  }

  /** Returns this change with the place of the part that it is in. */
  BodyChange within(String part, Ignored ignoringPart) {
    String where = MultipartFormat.PART + part;
    return new BodyChange(
        kind,
        place.equals(TextFormat.WHOLE) ? where : where + ", " + place,
        before,
        after,
        ignoringPart);
  }
}
