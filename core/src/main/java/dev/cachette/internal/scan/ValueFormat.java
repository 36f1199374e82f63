// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.Optional;

/** One kind of body. */
public interface ValueFormat {

  /** Returns true for bodies of this type, by their {@code content-type}. */
  boolean isNamedBy(BodyType type);

  /** Returns true for text that looks like it, whatever its type. */
  boolean isLike(String text);

  /**
   * Returns the text with changed values; everything else is unchanged, to the character.
   *
   * @return empty if the text is not of this format
   */
  Optional<String> change(BodyType type, String text, ValueChange change);
}
