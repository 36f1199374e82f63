// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;

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

  /**
   * Returns the changes between two contents of a format, or that only one of them is well-formed;
   * empty if none is.
   *
   * @param format the name of the format
   * @param compare compares two that are
   */
  static <T> Optional<List<BodyChange>> between(
      String format,
      Optional<T> before,
      Optional<T> after,
      BiFunction<T, T, List<BodyChange>> compare) {
    if (before.isPresent() && after.isPresent()) {
      return Optional.of(compare.apply(before.get(), after.get()));
    }
    if (before.isEmpty() && after.isEmpty()) {
      return Optional.empty();
    }
    String malformed = "not " + format;
    return Optional.of(
        List.of(
            new BodyChange(
                Kind.TYPE,
                TextFormat.WHOLE,
                before.isPresent() ? format : malformed,
                after.isPresent() ? format : malformed,
                Ignored.NOTHING)));
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
