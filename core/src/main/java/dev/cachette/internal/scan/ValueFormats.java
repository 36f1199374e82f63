// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import java.util.List;
import java.util.Optional;

/** All kinds of bodies with a structure; other text is a single value. */
public final class ValueFormats {

  private static final ValueFormat JSON = new JsonValues();
  private static final ValueFormat XML = new XmlValues();

  /** In the order in which they are tried. */
  private static final List<ValueFormat> ALL =
      List.of(new MultipartValues(), new FormValues(), new CsvValues(), XML, JSON);

  private ValueFormats() {}

  /**
   * Returns the text with changed values, in the format that its type names, or else the one that
   * it looks like. Text without a structure is one value without a name.
   */
  public static String change(BodyType type, String text, ValueChange change) {
    // Some clients call every body a form, such as curl.
    Optional<String> mistyped = changeMarked(type, text, change);
    if (mistyped.isPresent()) {
      return mistyped.get();
    }
    for (ValueFormat format : ALL) {
      if (format.isNamedBy(type)) {
        Optional<String> changed = format.change(type, text, change);
        if (changed.isPresent()) {
          return changed.get();
        }
      }
    }
    return changeLike(text, "", change);
  }

  private static Optional<String> changeMarked(BodyType type, String text, ValueChange change) {
    if (!JSON.isNamedBy(type) && JsonValues.isBegun(text)) {
      return JSON.change(BodyType.NONE, text, change);
    }
    return !XML.isNamedBy(type) && XML.isLike(text)
        ? XML.change(BodyType.NONE, text, change)
        : Optional.empty();
  }

  /** Returns the text with changed values, in the format that it looks like. */
  public static String changeLike(String text, String name, ValueChange change) {
    for (ValueFormat format : ALL) {
      if (format.isLike(text)) {
        Optional<String> changed = format.change(BodyType.NONE, text, change);
        if (changed.isPresent()) {
          return changed.get();
        }
      }
    }
    return change.of(Value.string(name, text));
  }

  /** Returns true for text with a structure. */
  public static boolean hasStructure(String text) {
    return ALL.stream().anyMatch(format -> format.isLike(text));
  }
}
